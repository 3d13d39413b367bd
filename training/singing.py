"""Makes songs whose every sound of speech has a known time: voices of synthesisers put to notes, over made-up music.

    python3 training/singing.py speak SPOKEN COUNT [SEED]
    npx tsx training/phones.ts SPOKEN
    python3 training/singing.py sing SPOKEN MUSIC OUT COUNT [SEED [again]]
    python3 training/singing.py play MUSIC OUT COUNT [SEED]
    python3 training/singing.py say SPOKEN/NAME VOICE LINE …
    python3 training/singing.py tune SPOKEN/NAME TUNE.json OUT.wav

`speak` has espeak-ng, flite and festival say made-up lines: NAME.wav, NAME.txt and NAME.lines.json (start and end of each
line in seconds). `phones.ts` finds where each sound of them lies. `sing` takes a voice apart into pitch, envelope
and breath every 5 ms, holds its vowels for notes on the beats of a piece of MUSIC (music.py), puts it together again at
other pitches, and mixes: NAME.wav (16 kHz, one channel or two), NAME.voice.wav (the voice alone, as it lies in the mix)
and NAME.truth.json ({words, lines, sounds}) with NAME.txt. With `again` lines come again, as choruses do. `play` makes songs in which nobody sings. With `say` festival says given lines, and `tune`
sings them to given notes. Needs numpy, espeak-ng, flite, festival with festvox-kallpc16k and festvox-us-slt-hts.
"""
import glob, json, os, random, re, sys, wave
import numpy as np

sys.path.insert(0, os.path.join(os.path.dirname(__file__), '..', 'bench'))
from narrations import clause, espeak, festival, flite
from voices import RATE, load, resample

HOP, SIZE = 80, 1024
VOWELS = set('AA AE AH AO AW AY EH ER EY IH IY OW OY UH UW'.split())
OTHERS = ['ooh', 'la la la', 'hey hey', 'oh', 'yeah', 'na na na', 'ah', 'mmm', 'whoa oh', 'I', 'you and me', 'we', 'my love', 'shine on', 'away']


def save(path, x):
    x = np.atleast_2d(x)
    with wave.open(path, 'wb') as w:
        w.setnchannels(len(x)); w.setsampwidth(2); w.setframerate(RATE); w.writeframes((np.clip(x, -1, 1).T * 32767).astype('<i2').tobytes())


# --- speaking ---------------------------------------------------------------------------------------------------------
def vocabulary():
    words = re.findall(r'^\("([a-z]{2,9})" ', open('/usr/share/festival/dicts/cmu/cmudict-0.4.out').read(), re.M)
    return sorted(set(words))


def line(r, rare):
    kind = r.random()
    if kind < .12: return r.choice(OTHERS) + r.choice(['', ', ' + r.choice(OTHERS)])
    words = re.sub(r'[0-9]+', '', clause(r)).split()
    if kind < .45: words = [w if r.random() < .7 else r.choice(rare) for w in words]
    return ' '.join(words[:r.choice([3, 4, 5, 6, 7, 8, 10, 14])])


def speak(out, count, seed):
    os.makedirs(out, exist_ok=True); rare = vocabulary()
    for item in range(count):
        r = random.Random(f'sung/{seed}/{item}'); lines = [line(r, rare) for _ in range(14)]
        kind = r.choices(['espeak', 'flite', 'festival'], [5, 4, 3])[0]
        try:
            if kind == 'espeak':
                voice = r.choice(['en', 'en-us', 'en-gb', 'en-gb-x-rp', 'en-gb-scotland', 'en-029']) + r.choice(['', '+m1', '+m2', '+m3', '+m4', '+m5', '+m6', '+m7', '+f1', '+f2', '+f3', '+f4', '+f5'])
                said = espeak(lines, voice, r.randint(115, 190), r.randint(25, 70))
            elif kind == 'flite': voice = r.choice(['slt', 'rms', 'awb', 'kal16']); said = flite(lines, voice, r.uniform(.85, 1.3))
            else: voice = r.choice(['kal_diphone', 'cmu_us_slt_arctic_hts']); said = festival(lines, voice)
        except Exception as error: print(kind, voice, error); continue
        keep(f'{out}/s{seed}-{item:04d}', f'{kind}:{voice}', lines, said)


def keep(base, voice, lines, said):
    sound, spans, at = [np.zeros(RATE // 2, np.float32)], [], .5
    for x, _ in said:
        spans.append((at, at + len(x) / RATE)); sound += [x, np.zeros(RATE // 2, np.float32)]; at += len(x) / RATE + .5
    x = np.concatenate(sound); x *= .3 / np.abs(x).max()
    save(base + '.wav', x); open(base + '.txt', 'w').write('\n'.join(lines))
    json.dump(dict(voice=voice, lines=spans), open(base + '.lines.json', 'w'))


# --- singing ----------------------------------------------------------------------------------------------------------
def taken_apart(x):
    """Pitch in hertz (0 without voice), envelope (log magnitude over SIZE / 2 + 1 bins) and noise share, every HOP."""
    n = len(x) // HOP; pad = np.pad(x, (SIZE, SIZE + HOP)); frames = pad[SIZE + HOP * np.arange(n)[:, None] + np.arange(-SIZE // 2, SIZE // 2)]
    w = np.hanning(642)[1:-1]; parts = frames[:, SIZE // 2 - 320:SIZE // 2 + 320] * w
    spectrum = np.fft.rfft(parts, 2048); r = np.fft.irfft(np.abs(spectrum) ** 2)[:, :320] / np.maximum(1e-9, np.fft.irfft(np.abs(np.fft.rfft(w, 2048)) ** 2)[:320])
    norm = r[:, 36:267] / np.maximum(r[:, :1], 1e-9) * np.linspace(1, .92, 231)
    best = norm.argmax(1); strength = norm.max(1); loud = np.sqrt(np.mean(parts ** 2, 1)); voiced = (strength > .45) & (loud > .01 * np.percentile(loud, 98))
    pitch = np.where(voiced, RATE / (best + 36), 0)
    known = np.nonzero(pitch)[0]
    filled = np.interp(np.arange(n), known, pitch[known]) if len(known) else np.full(n, 120.)
    middle = np.median(pitch[known]) if len(known) else 120.
    odd = (filled > 1.8 * middle) | (filled < .55 * middle); filled[odd] = middle
    # Windows of three periods; power smoothed over two thirds of the pitch (after Morise's CheapTrick, 2015).
    offsets = np.arange(-SIZE // 2, SIZE // 2); reach = np.minimum(1.5 * RATE / filled, SIZE // 2 - 1)[:, None]
    window = np.where(np.abs(offsets) < reach, .5 + .5 * np.cos(np.pi * offsets / reach), 0); window /= np.sqrt((window ** 2).sum(1, keepdims=True))
    power = np.abs(np.fft.rfft(frames * window)) ** 2 + 1e-10
    total = np.concatenate([np.zeros((n, 1)), np.cumsum(np.concatenate([power[:, 40:0:-1], power, power[:, -2:-42:-1]], 1), 1)], 1)
    width = np.maximum(1, filled / 3 / (RATE / SIZE)); bins = np.arange(SIZE // 2 + 1)[None] + 40.5
    at = lambda p: (lambda low, part: np.take_along_axis(total, low, 1) * (1 - part) + np.take_along_axis(total, low + 1, 1) * part)(p.astype(int), p - p.astype(int))
    smooth = (at(bins + width[:, None]) - at(bins - width[:, None])) / (2 * width[:, None])
    return pitch, .5 * np.log(np.maximum(smooth, 1e-12)), np.clip(1.1 - strength, .02, 1)


def put_together(g, envelope, pitch, noise):
    """Sound of an envelope, a pitch and a share of noise every HOP: pulses through minimum-phase filters, and filtered noise."""
    n = len(envelope); out = np.zeros(n * HOP + 2 * SIZE)
    cepstra = np.fft.irfft(envelope); cepstra[:, 1:SIZE // 2] *= 2; cepstra[:, SIZE // 2 + 1:] = 0
    filters = np.exp(np.fft.rfft(cepstra))
    # Pulses, a period apart.
    places, at = [], 0.
    while at < n - 1:
        f = pitch[int(at)]
        if f <= 0: at += 1; continue
        places.append(at); at += RATE / f / HOP
    places = np.array(places) if places else np.zeros(0)
    high = 1 / (1 + np.exp(-(np.fft.rfftfreq(SIZE, 1 / RATE) - 4500) / 600))
    if len(places):
        k = places.astype(int); period = RATE / pitch[k]; harmonic = np.sqrt(np.clip(1 - noise[k], 0, 1))[:, None] * (1 - .6 * high)
        part = places - k; sub = np.round(part * HOP).astype(int)
        pulses = np.fft.irfft(filters[k] * harmonic) * np.sqrt(period)[:, None]
        for p, i, s in zip(pulses, k, sub): out[i * HOP + s:i * HOP + s + SIZE] += p
    grains = g.standard_normal((n, SIZE)); w = np.zeros(SIZE); w[:2 * HOP] = np.hanning(2 * HOP + 2)[1:-1]
    unvoiced = np.where(pitch > 0, np.sqrt(np.clip(noise, 0, 1)) * .5, 1)[:, None]
    grains = np.fft.irfft(np.fft.rfft(grains * w) * filters * np.maximum(unvoiced, .3 * high * (pitch > 0)[:, None]))
    for i in range(n): out[i * HOP:i * HOP + SIZE] += grains[i] * .8
    return out[:n * HOP]


def melody(r, sounds, beat, style):
    """A line on notes of its own. `sounds`: (name, first frame, frame after) of the source; `beat`: frames a beat. Gives how long
    each sound is, in frames, the notes for `performed`, and how long before its first note it begins, in frames."""
    scale, low = style['scale'], style['low']; degree = r.randrange(len(scale)); patter = r.random() < style['patter']
    notes, lengths, now, lead = [], [], 0., 0.
    vowels = [i for i, s in enumerate(sounds) if s[0] in VOWELS]
    first = vowels[0] if vowels else 0
    for i, (name, a, b) in enumerate(sounds):
        length = b - a
        if i == first: lead = now
        if i in vowels:
            consonants = after(sounds, i, style['clip'])
            last = i == vowels[-1]
            units = r.choice([.25, .25, .5]) if patter else r.choice([.5, .5, .5, 1, 1, 1.5, 2])
            if last and r.random() < .75: units = r.choice([1, 2, 2, 3, 4])
            to = units * beat - consonants
            if now - lead > 0:
                # Notes begin on a grid of half beats, or of quarters in patter.
                grid = beat * (.25 if patter else .5); want = max(grid, round((now - lead + units * beat) / grid) * grid); to = want - (now - lead) - consonants
            length = max(min(length, 8), to) if r.random() < .95 else b - a
            degree = min(max(degree + r.choice([-2, -1, -1, 0, 0, 1, 1, 2, 3, -3]), -2), 2 * len(scale))
            steps = [degree] if length < .8 * beat or r.random() < .8 else [degree, degree + r.choice([-1, 1])]
            for j, d in enumerate(steps): notes.append((now + length * j / len(steps), low * 2 ** ((scale[d % len(scale)] + 12 * (d // len(scale))) / 12)))
        else: length = clipped(a, b, style['clip'])
        lengths.append(length); now += max(1, int(round(now + length) - round(now)))
    return lengths, notes or [(0, low)], lead


def clipped(a, b, clip): return (b - a) * (clip if b - a > 4 else 1)


def after(sounds, i, clip):
    """How long the consonants last that follow a sound, in frames."""
    total = 0
    for name, a, b in sounds[i + 1:]:
        if name in VOWELS: break
        total += (b - a) * clip
    return total


def performed(g, pitch, envelope, noise, sounds, lengths, notes, style):
    """Sounds as long as they are wanted, in frames, at the pitches of `notes`: (frame, hertz). Gives the sound, and where its
    sounds lie now (name, seconds, seconds)."""
    source, placed, now = [], [], 0
    for (name, a, b), length in zip(sounds, lengths):
        m = max(1, int(round(now + length) - round(now)))
        # Of a vowel that is rounded up the ends keep their pace and the middle is held; others are stretched evenly.
        if name in VOWELS and m > max(length, b - a): edge = min((b - a) / 3, 8); path = np.interp(np.arange(m) + .5, [0, edge, m - edge, m], [a, a + edge, b - edge, b])
        else: path = a + (np.arange(m) + .5) * (b - a) / m
        source.append(path); placed.append((name, now, now + m)); now += m
    path = np.concatenate(source); n = len(path); low_, part = path.astype(int).clip(0, len(pitch) - 1), (path - path.astype(int))[:, None]
    next_ = (low_ + 1).clip(0, len(pitch) - 1)
    env = envelope[low_] * (1 - part) + envelope[next_] * part; voiced = pitch[low_] > 0; air = noise[low_]
    f = np.full(n, float(notes[0][1])); glide = style['glide']
    for t, hz in notes: f[int(t):] = hz
    f = np.exp(np.convolve(np.pad(np.log(f), glide, 'edge'), np.ones(2 * glide + 1) / (2 * glide + 1), 'valid'))
    times = np.arange(n) * HOP / RATE; since = np.zeros(n)
    for t, _ in notes: since[int(t):] = times[:n - int(t)] if n > int(t) else 0
    f *= 2 ** (style['depth'] / 12 * np.sin(2 * np.pi * style['speed'] * times) * np.clip((since - .25) / .3, 0, 1) + g.standard_normal(n).cumsum() * .0004)
    if style['size'] != 1:
        bins = np.clip(np.arange(SIZE // 2 + 1) / style['size'], 0, SIZE // 2); env = np.stack([np.interp(bins, np.arange(SIZE // 2 + 1), e) for e in env])
    held = env + style['tilt'] * np.log1p(np.arange(SIZE // 2 + 1) / 32)[None] + .15 * np.sin(times * 2 * np.pi * style['speed'])[:, None] * style['depth']
    x = put_together(g, held, np.where(voiced, f, 0), np.clip(air * style['air'], 0, 1))
    return x, [(s, a * HOP / RATE, b * HOP / RATE) for s, a, b in placed]


def choir(r, g, pitch, envelope, noise, sounds, beat, style):
    """Three voices that hold one vowel of the source on a chord, for some beats: singing without words."""
    vowels = [s for s in sounds if s[0] in VOWELS]
    if not vowels: return np.zeros(0)
    vowel = r.choice(vowels); length = r.choice([2, 4, 4, 8, 12]) * beat
    chord = [style['low'] * 2 ** ((step + r.choice([0, 0, 12])) / 12) for step in r.choice([[0, 4, 7], [0, 3, 7], [0, 5, 9], [-3, 0, 5]])]
    voices = [performed(g, pitch, envelope, noise, [vowel], [length], [(0, hz)], {**style, 'depth': .3, 'size': r.uniform(.85, 1.18)})[0] for hz in chord]
    x = sum(voices); swell = np.minimum(1, np.minimum(np.arange(len(x)), np.arange(len(x))[::-1]) / (r.uniform(.05, .6) * RATE))
    return x * swell


def tune(base, path, out):
    """Sings the lines of a spoken file to a tune: of each time that a line is sung {line, notes: [{at, length, hertz}]} in
    seconds, a note for each syllable and more where `slur` is true. OUT.wav is the voice alone."""
    g = np.random.default_rng(1); wanted = json.load(open(path)); x, _ = load(base + '.wav'); pitch, envelope, noise = taken_apart(x.astype(np.float64))
    said = json.load(open(base + '.phones.json')); style = dict(clip=.9, glide=7, depth=.3, speed=5.4, size=1, tilt=0, air=.6)
    frames = lambda seconds: seconds * RATE / HOP
    end = max(n['at'] + n['length'] for w in wanted for n in w['notes']); voice = np.zeros(int((end + 2) * RATE))
    for w in wanted:
        sounds = [(s['name'], int(round(frames(s['start']))), int(round(frames(s['end'])))) for word in said if word['line'] == w['line'] for s in word['sounds']]
        vowels = [i for i, s in enumerate(sounds) if s[0] in VOWELS]; notes = w['notes']
        onsets = [n['at'] for n in notes if not n.get('slur')] + [notes[-1]['at'] + notes[-1]['length']]
        assert len(onsets) == len(vowels) + 1, f'line {w["line"]} has {len(vowels)} syllables'
        lengths = [clipped(a, b, style['clip']) for _, a, b in sounds]
        for k, i in enumerate(vowels): lengths[i] = max(6, frames(onsets[k + 1] - onsets[k]) - sum(lengths[i + 1:vowels[k + 1] if k + 1 < len(vowels) else len(sounds)]))
        lead = sum(lengths[:vowels[0]]); first = onsets[0]
        voiced, _ = performed(g, pitch, envelope, noise, sounds, lengths, [(lead + frames(n['at'] - first), n['hertz']) for n in notes], style)
        fade = 160; voiced[:fade] *= np.linspace(0, 1, fade); voiced[-fade:] *= np.linspace(1, 0, fade)
        p = int((first - lead * HOP / RATE) * RATE); voice[p:p + len(voiced)] += voiced
    save(out, voice * .5 / np.abs(voice).max())


def reverberation(r, g, x, seconds, wet):
    k = int(RATE * seconds); tail = g.standard_normal(k) * np.exp(-np.arange(k) / (k / 6.9)); tail *= wet / np.sqrt((tail ** 2).sum()); m = 1 << int(np.ceil(np.log2(len(x) + k)))
    return x + np.fft.irfft(np.fft.rfft(x, m) * np.fft.rfft(tail, m), m)[:len(x)]


def stereo(path):
    w = wave.open(path); n = w.getnchannels(); x = np.frombuffer(w.readframes(w.getnframes()), '<i2').astype(np.float32).reshape(-1, n).T / 32768
    return np.stack([resample(x[0], w.getframerate()), resample(x[-1], w.getframerate())])


def coming_again(r, order):
    """Lines with one or two of them sung again after every few others, or at once."""
    k = r.choice([1, 1, 2, 2, 3]); chorus, verses, sung = order[:k], order[k:], []
    while verses:
        n = r.choice([1, 2, 2, 3]); sung += verses[:n]; verses = verses[n:]; sung += chorus * r.choice([1, 1, 1, 2])
    return sung


def one(r, base, spoken, music, again=False):
    g = np.random.default_rng(r.randrange(1 << 30)); name = r.choice(spoken); piece = r.choice(music)
    m = stereo(piece); truth = json.load(open(piece.replace('.wav', '.truth.json'))); n = m.shape[1]; beats = truth['beats']
    beat = float(np.median(np.diff(beats))) if len(beats) > 4 else .5
    while beat < .33: beat *= 2
    while beat > .9: beat /= 2
    x, _ = load(name + '.wav'); pitch, envelope, noise = taken_apart(x.astype(np.float64)); said = json.load(open(name + '.phones.json')); lines = json.load(open(name + '.lines.json'))['lines']
    known = pitch[pitch > 0]; own = float(np.median(known)) if len(known) else 120
    style = dict(scale=r.choice([[0, 2, 4, 7, 9], [0, 3, 5, 7, 10], [0, 2, 4, 5, 7, 9, 11], [0, 2, 3, 5, 7, 8, 10]]), low=own * 2 ** r.uniform(-.35, .75), patter=r.choice([0, .1, .3]),
                 clip=r.uniform(.75, 1.3), glide=r.randint(3, 14), depth=r.choice([0, .2, .4, .8]), speed=r.uniform(4.5, 6.5), size=r.choice([1, 1, 1, r.uniform(.88, 1.14)]), tilt=r.uniform(-.15, .15), air=r.uniform(.3, 1.2))
    talked = r.random() < .12
    backed, answered, backing = r.choice([0, 0, 0, 0, .3, .9]), r.choice([0, 0, 0, 0, .3, .8]), np.zeros((2, n))

    def back(x, at, size, loud):
        """Puts a voice beside the lead, on one side."""
        if len(x) < 800 or at < 0 or at + len(x) > n: return
        x = x * 10 ** (loud / 20); x[:200] *= np.linspace(0, 1, 200); x[-200:] *= np.linspace(1, 0, 200); side = r.uniform(-1, 1) * size
        backing[0, at:at + len(x)] += x * (1 - side); backing[1, at:at + len(x)] += x * (1 + side)
    voice = np.zeros(n); words, sounds, texts = [], [], []; at = r.choice([r.uniform(.1, 1), r.uniform(1, 7)]); order = list(range(len(lines))); r.random() < .5 and r.shuffle(order)
    if again: order = coming_again(r, order)
    breaks = r.choice([.05, .15, .3])
    for k in order:
        mine = [s for s in said if s['line'] == k]
        if not mine or any(w['start'] is None for w in mine): continue
        flat = [(s['name'], int(round(s['start'] * RATE / HOP)), int(round(s['end'] * RATE / HOP)), w) for w, word in enumerate(mine) for s in word['sounds']]
        if not flat: continue
        # Silence between words of a line is closed.
        if talked or r.random() < .06:
            a, b = flat[0][1], flat[-1][2]; tune = np.copy(x[a * HOP:b * HOP]).astype(np.float64); placed = [(s, (p - a) * HOP / RATE, (q - a) * HOP / RATE) for s, p, q, _ in flat]; lead = 0
        else:
            mine_ = [f[:3] for f in flat]; lengths, notes, lead = melody(r, mine_, beat * RATE / HOP, style)
            tune, placed = performed(g, pitch, envelope, noise, mine_, lengths, notes, style)
        start = at
        if len(beats) and not talked and r.random() < .9:
            later = [b for b in beats if b - lead * HOP / RATE >= at]; start = (later[0] if later else at) - lead * HOP / RATE
        p = int(start * RATE); p = max(0, p)
        if p + len(tune) > n: break
        fade = min(200, len(tune) // 4); tune[:fade] *= np.linspace(0, 1, fade); tune[-fade:] *= np.linspace(1, 0, fade); tune *= 10 ** (r.gauss(0, 1.5) / 20)
        voice[p:p + len(tune)] += tune
        if lead and r.random() < backed:
            for step in r.sample([-12, -5, 3, 4, 7, 12], r.choice([1, 1, 2])): back(performed(g, pitch, envelope, noise, mine_, lengths, [(t, hz * 2 ** (step / 12)) for t, hz in notes], {**style, 'size': r.uniform(.9, 1.12)})[0], p + r.randint(0, 500), .9, r.uniform(-14, -5))
        if r.random() < answered: back(choir(r, g, pitch, envelope, noise, [f[:3] for f in flat], beat * RATE / HOP, style), p + r.choice([0, len(tune)]), .6, r.uniform(-16, -5))
        first = len(words); words += [dict(text=word['word'], line=len(texts)) for word in mine]; texts.append(' '.join(word['word'] for word in mine))
        for (s, a, b), (_, _, _, w) in zip(placed, flat):
            a, b = round(p / RATE + a, 4), round(p / RATE + b, 4); sounds.append((s, a, b)); words[first + w].setdefault('start', a); words[first + w]['end'] = b
        end = p / RATE + len(tune) / RATE
        at = end + (r.choice([r.uniform(2, 9)]) if r.random() < breaks else r.choice([r.uniform(.02, .2), r.uniform(.1, .6), r.uniform(.4, 1.8)]))
    if not sounds: return
    loud = np.sqrt(np.mean(voice[np.abs(voice) > .02 * np.abs(voice).max()] ** 2)); voice *= .1 / loud; backing *= .1 / loud
    if r.random() < .5: voice = reverberation(r, g, voice, r.uniform(.15, 1.2), r.uniform(.1, .45))
    if r.random() < .3:
        top = r.uniform(3500, 6500); s = np.fft.rfft(voice); voice = np.fft.irfft(s / (1 + (np.fft.rfftfreq(n, 1 / RATE) / top) ** 8), n)
    ratio = r.choice([None, r.uniform(6, 22), r.uniform(2, 10), r.uniform(-3, 4), r.uniform(-1, 6)])
    width = r.choice([0, 0, .4, 1, 1.4, 1.8]); middle, side = (m[0] + m[1]) / 2, (m[0] - m[1]) / 2 * width
    m = np.stack([middle + side, middle - side]); active = np.convolve(np.abs(voice), np.ones(1600) / 1600, 'same') > .01
    level = np.sqrt(np.mean(m[:, active] ** 2)) if active.any() else np.sqrt(np.mean(m ** 2))
    m = m * (0 if ratio is None else .1 / max(level, 1e-5) * 10 ** (-ratio / 20))
    pan = r.choice([0, 0, 0, r.uniform(-.25, .25)]); lead_ = np.stack([voice * (1 - pan), voice * (1 + pan)])
    total = lead_ + m + backing
    if r.random() < .2: total = total + g.standard_normal(total.shape) * .1 * 10 ** (-r.uniform(28, 55) / 20)
    if width == 0 or r.random() < .25: total, lead_ = total.mean(0, keepdims=True), lead_.mean(0, keepdims=True)
    gain = 10 ** (r.uniform(-20, -1) / 20) / max(1e-6, np.abs(total).max())
    save(base + '.wav', total * gain); save(base + '.voice.wav', (lead_ * gain).mean(0))
    open(base + '.txt', 'w').write('\n'.join(texts))
    lines = [dict(words=[k for k, w in enumerate(words) if w['line'] == j]) for j in range(len(texts))]
    played = {} if ratio is None else {k: truth[k] for k in ('beats', 'bars', 'metre', 'compound', 'swing', 'drums', 'strokes') if k in truth}
    json.dump(dict(played, kind='singing', language='en', ratio=ratio, channels=len(total), sounds=sounds, words=words, lines=[dict(words=[l['words'][0], l['words'][-1] + 1], start=words[l['words'][0]]['start']) for l in lines]), open(base + '.truth.json', 'w'))


def sing(source, music, out, count, seed, again=False):
    os.makedirs(out, exist_ok=True); spoken = sorted(p[:-12] for p in glob.glob(source + '/*.phones.json')); pieces = sorted(p for p in glob.glob(music + '/*.wav') if '.part.' not in p)
    for i in range(count):
        base = f'{out}/g{seed}-{i:04d}'
        if not os.path.exists(base + '.truth.json'): one(random.Random(f'{seed}/{i}/sing'), base, spoken, pieces, again)


def play(music, out, count, seed):
    """Pieces in which nobody sings, as songs."""
    os.makedirs(out, exist_ok=True); pieces = sorted(p for p in glob.glob(music + '/*.wav') if '.part.' not in p)
    for i, piece in enumerate(pieces[:count]):
        r = random.Random(f'{seed}/{i}/play'); x = stereo(piece); middle, side = (x[0] + x[1]) / 2, (x[0] - x[1]) / 2 * r.choice([0, 0, .4, 1, 1.6])
        x = np.stack([middle + side, middle - side]) if side.any() else middle[None]; base = f'{out}/p{seed}-{i:04d}'; silent = np.zeros(x.shape[1])
        save(base + '.wav', x * 10 ** (r.uniform(-20, -1) / 20) / max(1e-6, np.abs(x).max())); save(base + '.voice.wav', silent)
        json.dump(dict(kind='singing', sounds=[]), open(base + '.truth.json', 'w'))


if __name__ == '__main__':
    what, *rest = sys.argv[1:]
    seed = lambda at: int(rest[at]) if len(rest) > at else 1
    if what == 'speak': speak(rest[0], int(rest[1]), seed(2))
    elif what == 'say': keep(rest[0], rest[1], rest[2:], festival(rest[2:], rest[1]))
    elif what == 'tune': tune(*rest)
    elif what == 'play': play(rest[0], rest[1], int(rest[2]), seed(3))
    else: sing(rest[0], rest[1], rest[2], int(rest[3]), seed(4), 'again' in rest)
