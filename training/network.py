"""The network of `core/listen/signal/network.ts`, and how its weights are written down."""
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


def written(net, mean, spread):
    """Each weight as one character about U+017F, with a step for each output of each layer."""
    layers = [net.first, *net.rest, net.last]; coded, steps, offsets = [], [], []; s = net.shape
    for l in layers:
        w = l.weight.detach().numpy(); q = np.maximum(1e-9, np.abs(w).max((1, 2)) / 127); steps += [float(f'{v:.6g}') for v in q]
        q = np.rint(w / q[:, None, None]).astype(int); coded += [chr(0x17f + v) for v in q.transpose(2, 1, 0).ravel()]
        offsets += [float(f'{v:.6g}') for v in l.bias.detach().numpy()]
    r = lambda t: [float(f'{float(v):.6g}') for v in t]
    return dict(inputs=s['inputs'], channels=s['channels'], outputs=s['outputs'], firstTaps=s['first'], taps=s['taps'], distances=s['distances'], mean=r(mean), spread=r(spread), coded=''.join(coded), steps=steps, offsets=offsets)
