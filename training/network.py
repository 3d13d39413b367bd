"""The network of `core/listen/signal/network.ts`, and how its weights are written down.

    python3 training/network.py ONE.gz OTHER.gz OUT.gz SHARE    weights part of the way from one to the other
"""
import numpy as np, torch
from torch import nn


class Net(nn.Module):
    def __init__(self, shape, drop):
        super().__init__(); s = shape; c = s['channels']; self.shape = shape
        self.first = nn.Conv1d(s['inputs'], c, s['first'], padding=s['first'] // 2)
        self.rest = nn.ModuleList(nn.Conv1d(c, c, s['taps'], dilation=d, padding=d * (s['taps'] // 2)) for d in s['distances'])
        self.last = nn.Conv1d(c, s['outputs'], 1); self.drop = nn.Dropout2d(drop)

    def forward(self, x):
        h = torch.relu(self.first(x))
        for layer in self.rest: h = h + self.drop(torch.relu(layer(h)).unsqueeze(-1)).squeeze(-1)
        return self.last(h)


def written(net, mean, spread, outputs=None):
    """Each weight as one character about U+017F, with a step for each output of each layer; of the outputs only the first, where some were for teaching alone."""
    layers = [net.first, *net.rest, net.last]; coded, steps, offsets = [], [], []; s = net.shape; outputs = outputs or s['outputs']
    for l in layers:
        w, b = l.weight.detach().numpy(), l.bias.detach().numpy()
        if l is net.last: w, b = w[:outputs], b[:outputs]
        q = np.maximum(1e-9, np.abs(w).max((1, 2)) / 127); steps += [float(f'{v:.6g}') for v in q]
        q = np.rint(w / q[:, None, None]).astype(int); coded += [chr(0x17f + v) for v in q.transpose(2, 1, 0).ravel()]
        offsets += [float(f'{v:.6g}') for v in b]
    r = lambda t: [float(f'{float(v):.6g}') for v in t]
    return dict(inputs=s['inputs'], channels=s['channels'], outputs=outputs, firstTaps=s['first'], taps=s['taps'], distances=s['distances'], mean=r(mean), spread=r(spread), coded=''.join(coded), steps=steps, offsets=offsets)


def restored(net, kept):
    """Gives a network the weights that were written down; outputs that were not stay as they are."""
    at = out_at = 0
    for l in [net.first, *net.rest, net.last]:
        o, i, k = l.weight.shape; o = kept['outputs'] if l is net.last else o; q = np.array([ord(c) - 0x17f for c in kept['coded'][at:at + o * i * k]], np.float32).reshape(k, i, o); at += o * i * k
        l.weight.data[:o] = torch.from_numpy(q.transpose(2, 1, 0) * np.array(kept['steps'][out_at:out_at + o], np.float32)[:, None, None]); l.bias.data[:o] = torch.tensor(kept['offsets'][out_at:out_at + o]); out_at += o


def between(a, b, share):
    """Weights part of the way from one teaching to a later one: their mean hears both as well as either."""
    rows = lambda w: [(w['firstTaps'], w['inputs'], w['channels'])] + [(w['taps'], w['channels'], w['channels'])] * len(w['distances']) + [(1, w['channels'], w['outputs'])]
    mixed = {**a, 'coded': '', 'steps': []}; at = out_at = 0
    for k, i, o in rows(a):
        one, other = ((np.array([ord(c) - 0x17f for c in w['coded'][at:at + k * i * o]], float).reshape(k, i, o)) * np.array(w['steps'][out_at:out_at + o]) for w in (a, b)); at += k * i * o; out_at += o
        v = (1 - share) * one + share * other; step = np.maximum(1e-9, np.abs(v).max((0, 1)) / 127)
        mixed['steps'] += [float(f'{x:.6g}') for x in step]; mixed['coded'] += ''.join(chr(0x17f + int(x)) for x in np.rint(v / step).ravel())
    for name, digits in (('offsets', 8), ('priors', 4)): mixed[name] = [round((1 - share) * x + share * y, digits) for x, y in zip(a[name], b[name])]
    return mixed


if __name__ == '__main__':
    import gzip, json, sys
    one, other = (json.load(gzip.open(path)) for path in sys.argv[1:3])
    with gzip.GzipFile(sys.argv[3], 'w', mtime=0) as f: f.write(json.dumps(between(one, other, float(sys.argv[4])), ensure_ascii=False).encode())
