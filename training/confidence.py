"""Learns how sure a woven word is: python3 training/confidence.py WORDS.jsonl

Logistic regression over what `confidence.ts` wrote; prints the weights for `core/weave/confidence.ts` and, for each group,
how many of the wrong words lie under 0.9 and how many words lie there at all. Words of the script of another sound weigh
three tenths of the others. Needs numpy.
"""
import json, sys
import numpy as np

rows = [json.loads(line) for line in open(sys.argv[1])]
x = np.array([r['signs'] for r in rows]); y = np.array([r['right'] for r in rows], float); group = np.array([r['group'] for r in rows])
weight = np.ones(len(y)); another = group == 'another'; weight[another] = .3 * (~another).sum() / max(1, another.sum()); weight *= len(y) / weight.sum()
one = np.flatnonzero(x.std(0) == 0)[0]; rest = np.arange(x.shape[1]) != one; mean, spread = x.mean(0), x.std(0) + 1e-9; mean[one], spread[one] = 0, 1; z = (x - mean) / spread; w = np.zeros(x.shape[1])
for _ in range(80):
    p = 1 / (1 + np.exp(-np.clip(z @ w, -30, 30))); slope = z.T @ (weight * (p - y)) + 1e-4 * len(y) * rest * w
    w -= np.linalg.solve((z * (weight * p * (1 - p))[:, None]).T @ z + 1e-4 * len(y) * np.eye(len(w)), slope)
own = w / spread; own[one] = w[one] - (rest * w * mean / spread).sum()
print([float(f'{v:.4g}') for v in own])
p = 1 / (1 + np.exp(-np.clip(x @ own, -30, 30)))
for g in sorted(set(group)):
    mine = group == g; wrong = mine & (y == 0); shown = mine & (p < .9); sure = mine & ~shown
    print(f'{g:10} {mine.sum():6} words, {wrong.sum():5} wrong; under 0.9 {shown.sum() / mine.sum():.3f}, of the wrong {(wrong & shown).sum() / max(1, wrong.sum()):.3f}, of the sure right {y[sure].mean() if sure.any() else 1:.4f}')
