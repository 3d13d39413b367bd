"""Makes speech between pauses over every kind of background, with the truth about its pieces.

    python3 training/voices.py MUSIC OUT COUNT [SEED]

Speech comes from espeak-ng (many languages and voices) and flite; it says made-up words in no order. MUSIC
is a folder of sounds from music.py, of which beds are cut. Truth is taken from the clean speech: what
lies within 40 dB of a phrase's loudest 10 ms; silences under 0.1 s are closed. What is near an edge is
marked as not sure. Needs numpy, espeak-ng, flite.
"""
import glob, json, os, random, subprocess, sys, tempfile, wave
import numpy as np

RATE = 16000
WORDS = """the a of and river ferry chain winter water boat keeper morning evening crossing engine grease lamp tide harbour bell
old slow quiet never always seventeen forty hundred people carried across stood waiting under again before after grey heavy rope
island children school market Thursday stone bridge opened closed nobody remembers which because there where although listen
she he they we is was were could would six eight three yes no up out shut fish stacked thick brisk""".split()
OTHER = """la un di che sono mare barca fiume sera otto sette notte freddo ponte lento grande acqua le une der die das Schiff Wasser
langsam Brücke alt kalt Nacht el barco agua puente frío lento noche zwei drei quatre cinq seis siete casa strada treno""".split()
ESPEAK = ['en', 'en-gb', 'en-us', 'en-gb-scotland', 'en-gb-x-rp', 'en-029', 'it', 'fr', 'de', 'es', 'pt', 'nl', 'sv', 'pl', 'ro', 'cs', 'da', 'fi', 'ca', 'hu']
VARIANTS = ['', '+m1', '+m2', '+m3', '+m4', '+m5', '+m6', '+m7', '+f1', '+f2', '+f3', '+f4', '+f5']
FLITE = ['kal16', 'awb', 'rms', 'slt']


def load(path):
    w = wave.open(path); n = w.getnchannels()
    x = np.frombuffer(w.readframes(w.getnframes()), '<i2').astype(np.float32) / 32768
    return x.reshape(-1, n).mean(1), w.getframerate()


def resample(x, rate):
    if rate == RATE: return x
    n = int(len(x) * RATE / rate); spectrum = np.fft.rfft(x); m = n // 2 + 1
    s = np.zeros(m, complex); k = min(m, len(spectrum)); s[:k] = spectrum[:k]
    return (np.fft.irfft(s, n) * n / len(x)).astype(np.float32)


def level(x, hop=160):
    n = len(x) // hop
    return np.sqrt((x[:n * hop].reshape(n, hop) ** 2).mean(1) + 1e-12)


def phrase(r, folder, voice):
    path = folder + '/p.wav'; kind, name, speed, pitch = voice
    words = r.choices(WORDS if kind == 'flite' or r.random() < .6 else OTHER, k=r.choice([1, 1, 2, 3, 4, 5, 6, 8, 10, 12]))
    text = ' '.join(words)
    if kind == 'flite': subprocess.run(['flite', '-voice', name, '--setf', f'duration_stretch={speed}', '-t', text, '-o', path], check=True, capture_output=True)
    else: subprocess.run(['espeak-ng', '-v', name, '-s', str(speed), '-p', str(pitch), '-w', path, text], check=True, capture_output=True)
    x = resample(*load(path)); l = level(x)
    if l.max() < 1e-3: return phrase(r, folder, voice)
    on = np.nonzero(l > l.max() * 10 ** (-45 / 20))[0]
    return x[on[0] * 160:(on[-1] + 1) * 160] / (np.abs(x).max() + 1e-9)


def coloured(g, n, slope):
    s = np.fft.rfft(g.standard_normal(n)); f = np.maximum(np.fft.rfftfreq(n, 1 / RATE), 20)
    return np.fft.irfft(s * f ** (-slope / 2), n).astype(np.float32)


def background(r, g, n, music):
    kind = r.choices(['white', 'pink', 'brown', 'room', 'hum', 'traffic', 'fan', 'music'], [8, 8, 6, 14, 5, 9, 6, 40])[0]
    t = np.arange(n) / RATE
    if kind == 'white': x = coloured(g, n, 0)
    elif kind == 'pink': x = coloured(g, n, 1)
    elif kind == 'brown': x = coloured(g, n, 2)
    elif kind == 'room': x = coloured(g, n, r.uniform(.8, 2)) * (1 + .2 * np.interp(t, np.arange(0, n / RATE + 2, 1.5), g.standard_normal(int(n / RATE / 1.5) + 3)[:len(np.arange(0, n / RATE + 2, 1.5))]))
    elif kind == 'hum':
        f = r.choice([50, 60, 100, 120]); x = sum(r.uniform(.1, 1) / h * np.sin(2 * np.pi * f * h * t + r.uniform(0, 6)) for h in range(1, 9)); x = x / x.std() + coloured(g, n, 1) / coloured(g, 4000, 1).std() * .1
    elif kind == 'traffic':
        x = coloured(g, n, 1.6); x /= x.std(); e = np.full(n, .5)
        for _ in range(r.randint(2, 8)): e += r.uniform(.3, 1.5) * np.exp(-.5 * ((t - r.uniform(0, n / RATE)) / r.uniform(.8, 3)) ** 2)
        x = x * e
    elif kind == 'fan':
        s = np.fft.rfft(g.standard_normal(n)); f = np.fft.rfftfreq(n, 1 / RATE); x = np.fft.irfft(s * sum(np.exp(-.5 * ((f - c) / w) ** 2) for c, w in [(r.uniform(80, 3000), r.uniform(40, 600)) for _ in range(4)]), n)
        x = x / x.std() + .2 * g.standard_normal(n)
    else:
        x = np.zeros(0, np.float32)
        while len(x) < n:
            y, rate = load(r.choice(music)); y = resample(y, rate)
            x = np.concatenate([x, y / (y.std() + 1e-6)])
        a = r.randrange(0, len(x) - n + 1); x = x[a:a + n]
    return kind, (x / (x.std() + 1e-9)).astype(np.float32)


def breath(r, g):
    n = int(RATE * r.uniform(.15, .45)); s = np.fft.rfft(g.standard_normal(n)); f = np.fft.rfftfreq(n, 1 / RATE)
    x = np.fft.irfft(s * np.exp(-.5 * ((f - r.uniform(900, 2500)) / 1200) ** 2), n); return (x / x.std() * np.hanning(n)).astype(np.float32)


def one(r, base, music, folder):
    g = np.random.default_rng(r.randrange(1 << 30)); n = RATE * 50
    speech = np.zeros(n, np.float32); extra = np.zeros(n, np.float32); marked = []
    silent = r.random() < .1
    def someone():
        if r.random() < .4: return ('flite', r.choice(FLITE), r.uniform(.8, 1.35), 0)
        return ('espeak', r.choice(ESPEAK) + r.choice(VARIANTS), r.randint(110, 200), r.randint(15, 85))
    voices = [someone() for _ in range(r.choice([1, 1, 1, 2]))]
    loud = 10 ** (r.uniform(-32, -14) / 20); at = int(RATE * r.uniform(.1, 1.5)); spread = r.choice([0, 0, 2, 5])
    while not silent:
        x = phrase(r, folder, r.choice(voices)); x = x / (level(x)[level(x) > level(x).max() / 10].mean() + 1e-9) * loud * 10 ** (r.gauss(0, spread) / 20)
        if at + len(x) > n - 1600: break
        speech[at:at + len(x)] += x; marked.append((at, len(x), level(x).max())); at += len(x)
        pause = r.choices([r.uniform(.05, .25), r.uniform(.25, .5), r.uniform(.5, 1.2), r.uniform(1.2, 4)], [2, 4, 4, 3])[0]
        if pause > .5 and r.random() < .25:
            b = breath(r, g) * loud * 10 ** (r.uniform(-34, -16) / 20); p = at + int(RATE * r.uniform(.02, max(.021, pause - .05 - len(b) / RATE)))
            if p + len(b) < n and len(b) / RATE < pause - .05: extra[p:p + len(b)] += b
        if r.random() < .08:
            p = at + int(RATE * pause * r.uniform(.2, .8)); c = (g.standard_normal(400) * np.exp(-np.arange(400) / 60) * loud * r.uniform(.2, 1.5)).astype(np.float32)
            if p + 400 < n: extra[p:p + 400] += c
        at += int(RATE * pause)
    clean = speech.copy(); frames = n // 160; truth = np.zeros(frames, bool); l = level(clean)
    for start, length, top in marked:
        a, b = start // 160, min(frames, (start + length) // 160 + 1); truth[a:b] |= l[a:b] > max(top * 10 ** (-40 / 20), 2e-5)
    runs, on = [], np.nonzero(truth)[0]
    for f in on:
        if runs and f - runs[-1][1] <= 10: runs[-1][1] = int(f)
        else: runs.append([int(f), int(f)])
    if r.random() < .3:
        k = int(RATE * r.uniform(.15, .5)); tail = (g.standard_normal(k) * np.exp(-np.arange(k) / (k / 6.9))).astype(np.float32); tail *= r.uniform(.1, .35) / np.sqrt((tail ** 2).sum())
        m = 1 << int(np.ceil(np.log2(n + k))); speech = speech + np.fft.irfft(np.fft.rfft(speech, m) * np.fft.rfft(tail, m), m)[:n].astype(np.float32)
    if r.random() < .25:
        s = np.fft.rfft(speech); f = np.fft.rfftfreq(n, 1 / RATE); top = r.uniform(3200, 5500); speech = np.fft.irfft(s / (1 + (f / top) ** 12), n).astype(np.float32)
    kind, noise = background(r, g, n, music)
    snr = r.choice([r.uniform(8, 22), r.uniform(12, 35), r.uniform(25, 60)])
    if silent: snr = r.uniform(-8, 20)
    elif kind == 'music': snr = r.uniform(10, 32)
    total = speech + extra + noise * loud * 10 ** (-snr / 20)
    if r.random() < .5: total += coloured(g, n, r.uniform(0, 1.5)) / coloured(g, 8000, 1).std() * loud * 10 ** (-r.uniform(30, 60) / 20)
    tilt = r.uniform(-3, 3)
    s = np.fft.rfft(total); f = np.maximum(np.fft.rfftfreq(n, 1 / RATE), 50); total = np.fft.irfft(s * (f / 1000) ** (tilt / 6.02), n)
    total = total / max(1, np.abs(total).max() / .98)
    w = wave.open(base + '.wav', 'w'); w.setnchannels(1); w.setsampwidth(2); w.setframerate(RATE); w.writeframes((total * 32767).astype('<i2').tobytes()); w.close()
    pieces = [dict(start=a / 100, end=(b + 1) / 100) for a, b in runs]
    unsure = [dict(start=e - .025, end=e + .025) for p in pieces for e in (p['start'], p['end'])]
    json.dump(dict(kind='speech', background=kind, snr=round(snr, 1), pieces=pieces, unsure=unsure), open(base + '.truth.json', 'w'))


if __name__ == '__main__':
    source, out, count = sys.argv[1], sys.argv[2], int(sys.argv[3]); seed = int(sys.argv[4]) if len(sys.argv) > 4 else 1
    os.makedirs(out, exist_ok=True); music = sorted(glob.glob(source + '/*[0-9].wav'))
    with tempfile.TemporaryDirectory() as folder:
        for i in range(count): one(random.Random(seed * 99991 + i), f'{out}/v{seed}-{i:04d}', music, folder)
