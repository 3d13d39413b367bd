"""Learns a network of `core/listen/network.ts` from sounds with known truth.

    python3 training/train.py pulse|drums|voice FEATURES TRUTH OUT.ts [MINUTES [FROM.ts]]

FEATURES holds NAME.f32 from features.ts, TRUTH holds NAME.truth.json. A tenth of the sounds is held back and
decides when to stop. Writes the weights as TypeScript. Needs PyTorch (Debian: python3-torch).
"""
import glob, json, math, os, sys, time
import numpy as np, torch
from torch import nn
from network import Net, restored, written

what, features, truths, out = sys.argv[1:5]
minutes = float(sys.argv[5]) if len(sys.argv) > 5 else 20; rate = float(os.environ.get('RATE', '3e-3'))
torch.manual_seed(1); np.random.seed(1); torch.set_num_threads(int(os.environ.get('THREADS', '1')))
STEP = .02
# The pulse is taught to tell threes and drums too, since that teaches it where beats and bars lie; it need not say so.
TOLD = {'pulse': 2}
STROKES = ['kick', 'snare', 'closed', 'open']
SHAPE = {'pulse': dict(inputs=62, outputs=7, channels=36, first=3, taps=5, distances=[1, 2, 4, 8, 16, 32, 64, 128], crop=1200, middle=.0371),
         'drums': dict(inputs=78, outputs=4, channels=36, first=3, taps=5, distances=[1, 2, 4, 8, 16], crop=300, middle=.0371),
         'voice': dict(inputs=40, outputs=2, channels=16, first=3, taps=5, distances=[1, 2, 4, 8, 16, 32], crop=600, middle=.0178)}[what]


def targets_pulse(truth, n):
    """Beats, bar lines, threes and strokes: each step says how near the instant is, or how the beat divides."""
    y = np.zeros((n, 7), np.float32); w = np.ones((n, 7), np.float32)
    middle = SHAPE['middle'] + STEP * np.arange(n); strokes = truth.get('strokes')
    def near(t, about):
        a = int(round((t - middle[0]) / STEP)); return range(max(0, a - about), min(n, a + about + 1))
    for column, times, wide in [(0, truth.get('beats', []), .018), (1, truth.get('bars', []), .018)] + [(3 + k, (strokes or {}).get(name, []), .012) for k, name in enumerate(STROKES)]:
        for t in times:
            for k in near(t, 2): y[k, column] = max(y[k, column], math.exp(-.5 * ((middle[k] - t) / wide) ** 2))
    if strokes is None and truth.get('drums', True): w[:, 3:] = 0
    # Whether a ghost is a stroke is left open, and whether a side stick or a clap is a snare.
    for name, columns in (('soft', slice(3, 7)), ('other', slice(4, 5))):
        for t in (strokes or {}).get(name, []):
            for k in near(t, 3): w[k, columns] = 0
    y[:, 2] = 1 if truth.get('compound') else 0
    if not truth.get('beats'): w[:, 2] = 0
    if truth.get('swing', .5) != .5: w[:, 2] = 0
    return y, w


def targets_drums(truth, n):
    y, w = targets_pulse(truth, n); return y[:, 3:], w[:, 3:]


def targets_voice(truth, n):
    y = np.zeros((2 * n,), np.float32); w = np.ones((2 * n,), np.float32)
    middle = .0128 + .01 * np.arange(2 * n)
    for p in truth['pieces']: y[(middle >= p['start']) & (middle < p['end'])] = 1
    for p in truth.get('unsure', []): w[(middle >= p['start']) & (middle < p['end'])] = 0
    return y.reshape(n, 2), w.reshape(n, 2)


names = sorted(os.path.basename(f)[:-4] for f in glob.glob(features + '/*.f32'))
data = []
for name in names:
    x = np.fromfile(f'{features}/{name}.f32', np.float32).reshape(-1, SHAPE['inputs'])
    y, w = {'pulse': targets_pulse, 'drums': targets_drums, 'voice': targets_voice}[what](json.load(open(f'{truths}/{name}.truth.json')), len(x))
    data.append((torch.from_numpy(x), torch.from_numpy(y), torch.from_numpy(w)))
held = data[::10]; seen = [d for i, d in enumerate(data) if i % 10]
everything = torch.cat([d[0] for d in seen]); mean, spread = everything.mean(0), everything.std(0) + 1e-3
del everything
print(len(seen), 'sounds to learn from,', len(held), 'held back', flush=True)


net = Net(SHAPE, .1 if what == 'pulse' else .2); best = None
if len(sys.argv) > 6:
    # Goes on from weights that were written before.
    kept = json.loads(open(sys.argv[6]).read().split('Weights = ', 1)[1].rstrip().rstrip(';')); restored(net, kept)
    mean, spread = torch.tensor(kept['mean']), torch.tensor(kept['spread'])
bce = nn.BCEWithLogitsLoss(reduction='none', pos_weight=torch.tensor({'pulse': [2., 4., 1., 3., 3., 3., 3.], 'drums': [1.] * 4, 'voice': [1., 1.]}[what])[:, None])
scale = torch.tensor([1., 1., .15, .7, .7, .7, .7] if what == 'pulse' else [1.] * SHAPE['outputs'])[:, None]
loss_of = lambda o, y, w: (bce(o, y) * w * scale).mean()
optimiser = torch.optim.AdamW(net.parameters(), lr=3e-3, weight_decay=1e-2)
begun = time.time(); crop = SHAPE['crop']; step = 0; check = 0


def stretched(x, y, w):
    """The same at another speed, as if it had been played faster or slower."""
    speed = float(np.exp(np.random.uniform(-.22, .22))); n = min(crop, int(len(x) / speed))
    at = torch.arange(n) * speed; low = at.long().clamp(max=len(x) - 2); part = (at - low)[:, None]
    moved = x[low] * (1 - part) + x[low + 1] * part
    # An instant lies on one step only: the greatest of those that fall together is kept.
    target = torch.maximum(y[low] * (1 - part), y[low + 1] * part) * 1.2; target[:, 2] = y[low][:, 2]
    return moved, target.clamp(max=1), w[low]


def batch(size=16):
    xs, ys, ws = [], [], []
    for i in np.random.randint(len(seen), size=size):
        x, y, w = seen[i]; a = np.random.randint(max(1, len(x) - crop + 1)); part = slice(a, a + crop)
        x, y, w = x[part], y[part], w[part]
        if what == 'pulse' and np.random.rand() < .7: x, y, w = stretched(x, y, w)
        short = crop - len(x)
        x = (x - mean) / spread
        if what == 'voice':
            # Another microphone, another level, and a little doubt about every band.
            x = x + .5 * torch.randn(()) + (.12 * torch.randn(20)).cumsum(0).repeat(2) + .2 * torch.randn_like(x)
        if what == 'drums':
            # Other players and rooms: some bands louder, some lost, all of it softer; at times nothing is left of what is high.
            x = x + .35 * torch.randn(()) + torch.cat([(.2 * torch.randn(31)).cumsum(0) / 2, .15 * torch.randn(31), (.3 * torch.randn(4)).repeat(4)]); x = x * (1 + .1 * torch.randn(x.shape[1]))
            if np.random.rand() < .12: x[:, [k for k in range(62, 78) if (k - 62) % 4 > 1]] = (-mean / spread)[[k for k in range(62, 78) if (k - 62) % 4 > 1]]
        if what == 'pulse': x = x * (1 + .15 * torch.randn(())) + torch.cat([.25 * torch.randn(31).cumsum(0) / 3, torch.zeros(31)]) 
        if short: x, y, w = (torch.cat([t, torch.zeros(short, t.shape[1])]) for t in (x, y, w))
        xs.append(x.T); ys.append(y.T); ws.append(w.T)
    return torch.stack(xs), torch.stack(ys), torch.stack(ws)


def judge():
    net.eval(); total = n = 0
    with torch.no_grad():
        for x, y, w in held:
            total += float(loss_of(net(((x - mean) / spread).T[None]), y.T[None], w.T[None])) * len(x); n += len(x)
    net.train(); return total / n


def save():
    with open(out, 'w') as f:
        f.write(f"/** Learned by `training/train.py {what}` from made-up sounds; see `training/README.md`. */\nimport type {{ Weights }} from '../signal/network.ts';\n\nexport const {'DRUM' if what == 'drums' else what.upper()}_WEIGHTS: Weights = {json.dumps(written(net, mean, spread, TOLD.get(what)), ensure_ascii=False)};\n")


while True:
    done = (time.time() - begun) / 60 / minutes
    if done >= 1: break
    for g in optimiser.param_groups: g['lr'] = rate * min(1, step / 100 + .05) * (.5 + .5 * math.cos(math.pi * done)) + 2e-5
    x, y, w = batch(); optimiser.zero_grad(); loss = loss_of(net(x), y, w); loss.backward(); nn.utils.clip_grad_norm_(net.parameters(), 1.); optimiser.step(); step += 1
    if step % 200 == 0:
        v = judge(); mark = ''
        if best is None or v < best: best = v; save(); mark = ' kept'
        print(f'{(time.time() - begun) / 60:5.1f} min, step {step}, loss {float(loss):.4f}, held back {v:.4f}{mark}', flush=True)
