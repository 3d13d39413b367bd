"""Learns where bars begin from what sounds on each beat (`core/listen/pulse/barInputs.ts`).

    python3 training/bars.py OUT.ts MINUTES FEATURES TRUTH [FEATURES TRUTH …]

FEATURES holds NAME.f32 from `features.ts bars`, TRUTH holds NAME.truth.json. A tenth is held back and decides which weights are kept.
"""
import glob, json, math, os, sys, time
import numpy as np, torch
from torch import nn
from network import Net, written

out, minutes, folders = sys.argv[1], float(sys.argv[2]), sys.argv[3:]
torch.manual_seed(1); np.random.seed(1); torch.set_num_threads(int(os.environ.get('THREADS', '1')))
LENGTHS = [2, 3, 4]


def labels(truth):
    """Of each beat: whether a bar begins here, and how long its bar is (-1: unknown)."""
    bars = set(truth['bars']); y = np.array([t in bars for t in truth['beats']], np.float32); at = np.flatnonzero(y); length = np.full(len(y), -1)
    for a, b in zip(at, at[1:]):
        if b - a in LENGTHS: length[a:b] = LENGTHS.index(b - a)
    return y, length


data = []
for features, truths in zip(folders[::2], folders[1::2]):
    for f in sorted(glob.glob(features + '/*.f32')):
        truth = json.load(open(f'{truths}/{os.path.basename(f)[:-4]}.truth.json'))
        if len(truth['beats']) < 12: continue
        x = np.fromfile(f, np.float32).reshape(len(truth['beats']), -1)
        data.append([torch.from_numpy(v) for v in (x, *labels(truth))])
held = data[::10]; seen = [d for i, d in enumerate(data) if i % 10]
everything = torch.cat([d[0] for d in seen]); mean, spread = everything.mean(0), everything.std(0) + 1e-3
print(len(seen), 'pieces to learn from,', len(held), 'held back', flush=True)
SHAPE = dict(inputs=everything.shape[1], outputs=1 + len(LENGTHS), channels=16, first=3, taps=3, distances=[1, 2, 3, 4, 8])
net = Net(SHAPE, .3); CROP = 96; best = None
bce = nn.BCEWithLogitsLoss(reduction='none')


def loss_of(o, y, length):
    known = length >= 0; told = y >= 0
    one = bce(o[:, 0][told], y[told]).mean()
    return one + .3 * nn.functional.cross_entropy(o[:, 1:].transpose(1, 2)[known], length[known]) if known.any() else one


def batch(size=24):
    rows = []
    for i in np.random.randint(len(seen), size=size):
        x, y, length = seen[i]; a = np.random.randint(max(1, len(x) - CROP + 1)); part = slice(a, a + CROP); x = (x[part] - mean) / spread
        # Each kind of sign is at times missing or duller: other music has other signs.
        x = x * (1 + .2 * torch.randn(x.shape[1])) + .15 * torch.randn_like(x) + .2 * torch.randn(x.shape[1])
        if np.random.rand() < .3: x[:, 0] = 0
        if np.random.rand() < .15: x[:, 6:14] = 0
        if np.random.rand() < .15: x[:, 14:23] = 0
        short = CROP - len(x); pad = lambda t, v=0: torch.cat([t, torch.full((short, *t.shape[1:]), v, dtype=t.dtype)]) if short else t
        rows.append((pad(x).T, pad(y[part], -1), pad(length[part], -1)))
    return [torch.stack(c) for c in zip(*rows)]


def judge():
    net.eval(); total = n = 0
    with torch.no_grad():
        for x, y, length in held:
            o = net(((x - mean) / spread).T[None]); total += float(loss_of(o, y[None], length[None])); n += 1
    net.train(); return total / n


optimiser = torch.optim.AdamW(net.parameters(), lr=3e-3, weight_decay=3e-2); begun = time.time(); step = 0
while True:
    done = (time.time() - begun) / 60 / minutes
    if done >= 1: break
    for g in optimiser.param_groups: g['lr'] = 3e-3 * min(1, step / 100 + .05) * (.5 + .5 * math.cos(math.pi * done)) + 2e-5
    x, y, length = batch(); optimiser.zero_grad(); loss = loss_of(net(x), y, length); loss.backward(); nn.utils.clip_grad_norm_(net.parameters(), 1.); optimiser.step(); step += 1
    if step % 50 == 0:
        v = judge(); mark = ''
        if best is None or v < best:
            best = v; mark = ' kept'
            with open(out, 'w') as f: f.write(f"/** Learned by `training/bars.py` from made-up music; see `training/README.md`. */\nimport type {{ Weights }} from '../signal/network.ts';\n\nexport const BAR_WEIGHTS: Weights = {json.dumps(written(net, mean, spread), ensure_ascii=False)};\n")
        print(f'{(time.time() - begun) / 60:5.1f} min, step {step}, loss {float(loss):.4f}, held back {v:.4f}{mark}', flush=True)
