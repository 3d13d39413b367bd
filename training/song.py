"""Learns the network that hears singing through music from songs of singing.py.

    python3 training/song.py FEATURES SONGS PHONES OUT.gz [MINUTES [FROM.gz]]

FEATURES holds NAME.f32 and NAME.mask of `features.ts song`, SONGS the truths; PHONES names the sounds of speech, a JSON
list. One song in twelve is held back and decides when to stop. Outputs: a score for each sound and for none (softmax), then
the share that the voice has in each band of the acoustic model. Needs PyTorch (Debian: python3-torch).
"""
import glob, gzip, json, math, os, sys, time
import numpy as np, torch
from torch import nn
from network import Net, restored, written

features, songs, phones, out = sys.argv[1:5]; minutes = float(sys.argv[5]) if len(sys.argv) > 5 else 30
torch.manual_seed(1); np.random.seed(1); torch.set_num_threads(int(os.environ.get('THREADS', '2')))
RATE = float(os.environ.get('RATE', '3e-3'))
STEP, MIDDLE, BANDS, CROP, FLOOR = .02, .0178, 40, 300, -6.
names = json.loads(phones) if phones.startswith('[') else json.load(open(phones)); index = {n: i for i, n in enumerate(names)}; NONE = len(names)
SHAPE = dict(inputs=4 * BANDS, outputs=NONE + 1 + 25, channels=int(os.environ.get('CHANNELS', '64')), first=3, taps=5, distances=[1, 2, 4, 8, 16, 32, 64])


def target(truth, n):
    y = np.full(n, NONE, np.int64); middle = MIDDLE + STEP * np.arange(n)
    for name, a, b in truth['sounds']:
        if name in index: y[(middle >= a) & (middle < b)] = index[name]
    return y


data = []
for path in sorted(glob.glob(features + '/*.f32')):
    name = os.path.basename(path)[:-4]; x = np.fromfile(path, np.float32).reshape(-1, 4 * BANDS)
    mask = np.fromfile(f'{features}/{name}.mask', np.uint8).reshape(-1, 25)[:len(x)]
    data.append((torch.from_numpy(x), torch.from_numpy(target(json.load(open(f'{songs}/{name}.truth.json')), len(x))), torch.from_numpy(mask)))
held = data[::12]; seen = [d for i, d in enumerate(data) if i % 12]
everything = torch.cat([d[0] for d in seen[:200]]); mean, spread = everything.mean(0), everything.std(0) + 1e-2
counts = torch.bincount(torch.cat([d[1] for d in seen]), minlength=NONE + 1).double(); priors = torch.log((counts + 50) / (counts + 50).sum())
print(len(seen), 'songs to learn from,', len(held), 'held back', sum(len(d[0]) for d in data) * STEP / 3600, 'hours', flush=True)

net = Net(SHAPE, .1); best = None
if len(sys.argv) > 6:
    # Goes on from weights that were written before.
    kept = json.load(gzip.open(sys.argv[6])); restored(net, kept)
    mean, spread = torch.tensor(kept['mean']), torch.tensor(kept['spread'])
optimiser = torch.optim.AdamW(net.parameters(), lr=3e-3, weight_decay=1e-2); begun = time.time(); step = 0
bce = nn.BCEWithLogitsLoss(reduction='none')


def losses(o, y, mask):
    """Of the sounds, and of the shares where they matter: where somebody sings."""
    sound = nn.functional.cross_entropy(o[:, :NONE + 1], y)
    return sound, bce(o[:, NONE + 1:], mask.float() / 255).mean()


def batch(size=16):
    xs, ys, ms = [], [], []
    for i in np.random.randint(len(seen), size=size):
        x, y, m = seen[i]; a = np.random.randint(max(1, len(x) - CROP + 1)); x, y, m = x[a:a + CROP], y[a:a + CROP], m[a:a + CROP]
        if len(x) < CROP: continue
        x = x.clone().reshape(-1, 4, BANDS); quiet = x <= FLOOR
        # Another level, another microphone, a little doubt about every band; one channel where there were two.
        x = x + .25 * torch.randn(()) + (.06 * torch.randn(BANDS)).cumsum(0) + .08 * torch.randn_like(x)
        x[quiet] = FLOOR
        if np.random.rand() < .25: x[:, 1::2] = FLOOR
        if np.random.rand() < .3: b = np.random.randint(BANDS - 4); x[:, :, b:b + np.random.randint(2, 6)] += np.random.uniform(-1.5, .5)
        xs.append(((x.clamp(min=FLOOR).reshape(-1, 4 * BANDS) - mean) / spread).T); ys.append(y); ms.append(m.T)
    return torch.stack(xs), torch.stack(ys), torch.stack(ms)


def judge():
    net.eval(); total = np.zeros(4); n = 0
    with torch.no_grad():
        for x, y, m in held:
            o = net(((x - mean) / spread).T[None]); a, b = losses(o, y[None], m.T[None]); guess = o[0, :NONE + 1].argmax(0); sung = y < NONE
            total += np.array([float(a), float(b), float((guess == y)[sung].float().mean()) if sung.any() else 1, float(((guess < NONE) == sung).float().mean())]) * len(x); n += len(x)
    net.train(); return total / n


while True:
    done = (time.time() - begun) / 60 / minutes
    if done >= 1: break
    for group in optimiser.param_groups: group['lr'] = RATE * min(1, step / 200 + .02) * (.5 + .5 * math.cos(math.pi * done)) + 1e-5
    x, y, m = batch(); optimiser.zero_grad(); a, b = losses(net(x), y, m); (a + 2 * b).backward(); nn.utils.clip_grad_norm_(net.parameters(), 1.); optimiser.step(); step += 1
    if step % 250 == 0:
        v = judge(); mark = ''
        if best is None or v[0] + 2 * v[1] < best:
            best = v[0] + 2 * v[1]; mark = ' kept'
            with gzip.GzipFile(out, 'w', mtime=0) as f: f.write(json.dumps(dict(written(net, mean, spread), phones=names, priors=[round(float(p), 4) for p in priors]), ensure_ascii=False).encode())
        print(f'{(time.time() - begun) / 60:5.1f} min, step {step}, learnt {float(a):.3f} {float(b):.3f}, held back {v[0]:.3f} {v[1]:.3f}, sounds right {v[2]:.3f}, sung or not right {v[3]:.3f}{mark}', flush=True)
