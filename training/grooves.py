"""Makes music of accompaniments that people wrote, as MIDI with the truth about its beats and bars beside it.

    python3 training/grooves.py OUT COUNT [SEED]

Each piece takes a file of grooves from the library of MMA (Debian: mma), one or two of its grooves, a progression, a form with fills,
a tempo and at times a melody by `music.py`, and is written as `music.py` writes its pieces. A groove says what drums, bass
and chords play in a bar; no piece of music is among them. Bars of five beats are left out.
"""
import glob, os, random, re, subprocess, sys, tempfile
import mido
from music import MELODIES, PROGRESSIONS, Piece

LIBRARY = os.environ.get('MMA_LIBRARY', '/usr/share/mma/lib')
NAMES = 'C Db D Eb E F Gb G Ab A Bb B'.split()
LEFT_OUT = re.compile(r'metronome|none\.mma|init\.mma|-54|stdpats')
KINDS = {('4', 1): '4/4', ('3', 1): '3/4', ('2', 1): '2/4', ('6', 3): '6/8'}


def files():
    """Each file of the library with the names of its grooves."""
    for path in sorted(glob.glob(f'{LIBRARY}/*/*.mma')):
        names = re.findall(r'^\s*DefGroove\s+(\S+)', open(path, encoding='latin-1').read(), re.M | re.I)
        if names and not LEFT_OUT.search(path): yield os.path.relpath(path, LIBRARY)[:-4], names


def played(path, grooves, chords):
    """What MMA makes of a groove and a chord for every bar: beats a bar, whether it swings, notes in quarters, programs; or nothing."""
    with tempfile.TemporaryDirectory() as folder:
        text = [f'Use {path}', 'Tempo 120', *(line for i, (groove, chord) in enumerate(zip(grooves, chords)) for line in
                ([f'Groove {groove}'] if i == 0 or groove != grooves[i - 1] else []) + ([f'Print TIME $_Time SIG $_TimeSig SWING $_SwingMode'] if i == 0 else []) + [chord])]
        open(f'{folder}/a.mma', 'w').write('\n'.join(text) + '\n')
        ran = subprocess.run(['mma', '-f', f'{folder}/a.mid', f'{folder}/a.mma'], capture_output=True, text=True)
        told = re.search(r'TIME (\S+) SIG (\S+) SWING (\w+)', ran.stdout)
        if ran.returncode or not told: return None
        file = mido.MidiFile(f'{folder}/a.mid')
    notes, programs = [], {}
    for track in file.tracks:
        now, sounding = 0, {}
        for message in track:
            now += message.time
            if message.type == 'program_change': programs.setdefault(message.channel, message.program)
            elif message.type == 'note_on' and message.velocity: sounding[message.note] = (now, message.velocity)
            elif message.type in ('note_on', 'note_off') and message.note in sounding:
                begun, velocity = sounding.pop(message.note)
                notes.append((begun / file.ticks_per_beat, (now - begun) / file.ticks_per_beat, message.channel, message.note, velocity))
    return told.group(1), told.group(2), told.group(3).lower() == 'on', notes, programs


def form(r, names, bars):
    """A groove for every bar: two that take turns by eight or sixteen, a fill at the end of some, at times an intro."""
    by = lambda word: [n for n in names if re.search(word + r'\d*$', n, re.I)]
    plain = [n for n in names if n not in by('intro') + by('end') + by('fill')] or names
    one, two = r.choice(plain), r.choice(plain); fills, phrase = by('fill'), r.choice([4, 8, 8, 16])
    out = [one if (i // phrase) % 2 == 0 else two for i in range(bars)]
    if fills and r.random() < .6:
        for i in range(phrase - 1, bars, phrase): out[i] = r.choice(fills)
    intro = by('intro')
    if intro and r.random() < .5:
        for i in range(r.choice([2, 4])): out[i] = intro[0]
    return out


def groove(r, library):
    """A piece with a groove, or nothing where MMA does not know it or its bars are of another kind."""
    p = Piece(r); path, names = r.choice(library); bars = 90; progressions = [r.choice(PROGRESSIONS) for _ in range(2)]
    step = r.choice([1, 1, 1, 2, 2, .5]); sevenths = r.random() < .35
    degree = lambda bar, half=0: progressions[(bar // 8) % 2][int(bar / step + (half if step == .5 else 0)) % 4]
    root = p.root % 12
    def chord(bar, half=0):
        d = degree(bar, half) % 7; third, fifth = ((p.scale[(d + k) % 7] - p.scale[d]) % 12 for k in (2, 4))
        return NAMES[(root + p.scale[d]) % 12] + ('dim' if fifth == 6 else ('m7' if sevenths else 'm') if third == 3 else '7' if sevenths and d == 4 else 'maj7' if sevenths else '')
    grooves = form(r, names, bars); probe = played(path, grooves[:1], ['C'])
    if probe is None: return None
    time, signature, swings, *_ = probe; eighths = signature.endswith('/8'); beat = 3 if eighths else 1
    if (time, beat) not in KINDS: return None
    n = p.beats_a_bar = int(time) // beat; p.metre = KINDS[time, beat]; p.compound = eighths
    half = int(time) // 2
    texts = [' '.join([chord(b), *['/'] * (half - 1), chord(b, 1)]) if step == .5 and int(time) % 2 == 0 else chord(b) for b in range(bars)]
    whole = played(path, grooves, texts)
    if whole is None: return None
    *_, notes, p.programs = whole; p.drums = any(x[2] == 9 for x in notes)
    p.bpm = min(210, max(50, {4: 118, 3: 124, 2: 96}[n] * 2.718 ** r.gauss(0, .28))); p.swing = .66 if swings else .5
    p.bars = min(bars, int(p.seconds * p.bpm / 60 / n) + 1); p.upbeat = p.first = 0
    if r.random() < .25: p.upbeat = r.choice([.5, 1, 2]); p.first = 2 if p.upbeat > 1 else 1
    p.make_bars(); p.make_tempo(); p.step = step; p.chord_of = degree
    def even(b):
        """Where it would be if it did not swing: the time of a place swings it again."""
        w = int(b + 1e-9); part = max(0., b - w)
        return w + (part * .5 / .66 if part < .66 else .5 + (part - .66) * .5 / .34) if swings else b
    p.notes = []
    for begun, length, channel, pitch, velocity in notes:
        at = p.placed(p.first + even(begun / beat))
        if at is not None and begun / beat < p.bars * n: p.notes.append((at, length / beat, channel, pitch, velocity))
    free = [c for c in range(16) if c != 9 and c not in p.programs]
    if free and r.random() < .6:
        bars_of_tune = list(range(p.bars)); a = r.randrange(0, max(1, p.bars // 2)) if r.random() < .4 else 0
        p.melody(free[0], r.choice(MELODIES + [29, 30, 80, 81, 62]), r.choice([1, 2]), r.uniform(60, 95), bars_of_tune[a:])
    # Loud guitars with the drums alone: what they play is no pattern of the library.
    if p.drums and r.random() < .22:
        p.notes = [x for x in p.notes if x[2] == 9]
        for _ in range(r.choice([1, 1, 2])): p.riff(r.choice([[4, 6], [4], [6]]), list(range(p.bars)), r.uniform(60, 100))
        return p
    # At times without what carries the pulse: other music has no drums, or no more than drums and bass.
    if p.drums and r.random() < .2: p.notes = [x for x in p.notes if x[2] != 9]; p.drums = False
    elif r.random() < .1: keep = {9, *r.sample(sorted(p.programs), 1)}; p.notes = [x for x in p.notes if x[2] in keep]
    return p if len(p.notes) > 60 else None


if __name__ == '__main__':
    out, count = sys.argv[1], int(sys.argv[2]); seed = int(sys.argv[3]) if len(sys.argv) > 3 else 1
    os.makedirs(out, exist_ok=True); library, done, at = list(files()), 0, 0
    while done < count:
        piece = groove(random.Random(seed * 100003 + at), library); at += 1
        if piece: piece.save(f'{out}/g{seed}-{done:04d}'); done += 1
    print(at - done, 'were left out')
