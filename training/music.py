"""Makes music that nobody wrote, as MIDI with the truth about its beats and bars beside it.

    python3 training/music.py OUT COUNT [SEED [lead|kit|strikes|song]]

Each piece draws its metre, tempo and how it changes, upbeat, swing, players and figures at random from
plain rules of accompaniment; no piece is copied from anywhere. `OUT/NAME.mid` and `OUT/NAME.truth.json`
({beats, bars, metre, compound, drums, strokes: {kick, snare, closed, open, other, soft}} in seconds). With `lead`, one
or two players lead and few accompany them: what a voice is most easily taken for. With `kit`, a
drum kit plays alone. With `strikes`, drums and other
struck things sound at irregular times: there is no pulse. With `song`, sections come again: the truth has
sections: [{start, end, kind}] too. Needs mido (Debian: python3-mido).
"""
import json, math, os, random, sys
import mido

PPQ = 480
MAJOR, MINOR = [0, 2, 4, 5, 7, 9, 11], [0, 2, 3, 5, 7, 8, 10]
PROGRESSIONS = [[0, 3, 4, 0], [0, 4, 5, 3], [0, 5, 3, 4], [0, 3, 0, 4], [0, 0, 3, 4], [5, 3, 0, 4], [0, 6, 3, 4],
                [0, 2, 3, 4], [0, 1, 4, 0], [0, 5, 1, 4], [0, 3, 1, 4], [0, 4, 0, 4], [0, 0, 4, 0], [2, 5, 1, 4]]
MELODIES = [0, 4, 5, 11, 12, 13, 21, 22, 24, 25, 40, 41, 42, 56, 57, 60, 64, 65, 66, 68, 69, 71, 72, 73, 74, 75, 79, 80, 81, 105, 110]
PADS = [0, 4, 5, 16, 19, 24, 25, 26, 27, 46, 48, 49, 50, 52, 88, 89, 90, 105]
BASSES = [32, 33, 34, 35, 36, 38, 39, 43, 58]
KITS = [0, 0, 0, 0, 8, 16, 24, 25, 32, 40, 48]
# The strokes that are told apart, by General MIDI's key: side sticks and claps are neither snares nor anything else.
STROKES = {35: 'kick', 36: 'kick', 38: 'snare', 40: 'snare', 42: 'closed', 44: 'closed', 46: 'open', 37: 'other', 39: 'other'}
# Softer strokes are ghosts: whether they are heard is left open.
SOFT = 40
SOLO = {'piano': [0, 1, 2, 3, 4, 5, 6], 'strings': [40, 41, 42, 44, 45, 48, 49], 'guitar': [24, 25, 26, 27], 'harp': [46], 'organ': [16, 19, 21], 'mallets': [11, 12, 13]}


class Piece:
    def __init__(self, r):
        self.r = r
        self.metre = r.choices(['4/4', '3/4', '6/8', '2/4'], [45, 22, 20, 13])[0]
        self.beats_a_bar = {'4/4': 4, '3/4': 3, '6/8': 2, '2/4': 2}[self.metre]
        self.compound = self.metre == '6/8'; drums_likely = r.random() < .6
        middle = {'4/4': 112, '3/4': 120, '6/8': 88, '2/4': 105}[self.metre]
        self.bpm = min(205, max(48, middle * math.exp(r.gauss(0, .3))))
        # Ballads and slow strings: most of their notes are halves or quarters of a beat.
        if not drums_likely and r.random() < .45: self.bpm = r.uniform(44, 84)
        # Much music with drums is written at twice the pace that a foot would tap, or goes with a double beat.
        if drums_likely and self.beats_a_bar == 4 and r.random() < .35: self.bpm = r.uniform(135, 208)
        self.swing = r.uniform(.57, .69) if not self.compound and r.random() < .17 else .5
        self.drums = drums_likely
        self.root, self.scale = r.randint(40, 51), MAJOR if r.random() < .6 else MINOR
        self.human = r.choice([0, 0, .004, .008, .014])
        self.accent = r.uniform(0, 26)
        self.pulse, self.sections = True, []
        self.notes = []  # (beat, length in beats, channel, pitch, velocity)
        self.programs = {}
        self.seconds = r.uniform(34, 46)
        self.upbeat = 0 if r.random() < .6 else r.choice([.5, 1, 1] if self.beats_a_bar < 4 else [.5, 1, 1, 2, 3])
        self.first = math.ceil(self.upbeat)
        self.bars = int(self.seconds * self.bpm / 60 / self.beats_a_bar) + 1
        self.make_bars()
        self.make_tempo()
        self.make_harmony()
        self.write()

    # --- time -------------------------------------------------------------------------------------
    def make_bars(self):
        """How many beats each bar has: some pieces change their metre for a while or put in half a bar."""
        r, n = self.r, self.beats_a_bar; self.lengths = [n] * self.bars
        if not self.compound and n > 2 and r.random() < .1:
            a = r.randrange(2, max(3, self.bars - 2)); b = a + r.choice([4, 8, self.bars])
            self.lengths = [n - 1 if a <= i < b else n for i in range(self.bars)]
        elif n == 4 and r.random() < .12:
            for i in r.sample(range(1, self.bars), min(r.randint(1, 2), self.bars - 1)): self.lengths[i] = 2
        self.starts = [self.first]
        for length in self.lengths: self.starts.append(self.starts[-1] + length)

    def placed(self, beat):
        """Where a beat, counted as if every bar were whole, is played; nothing where its bar is shorter than that."""
        bar = (beat + 1e-6 - self.first) // self.beats_a_bar
        if bar < 0: return beat
        if bar >= self.bars: return self.starts[-1] + beat - self.first - self.bars * self.beats_a_bar
        place = beat - self.first - bar * self.beats_a_bar; bar = int(bar)
        return self.starts[bar] + place if place < self.lengths[bar] - 1e-6 else None

    def make_tempo(self):
        """Seconds a beat for every beat."""
        r, n = self.r, self.bars * self.beats_a_bar + self.first + 8
        kind = r.choices(['steady', 'steps', 'drift', 'walk', 'phrases'], [50, 18, 17, 15, 0 if self.drums else 30])[0]
        base = 60 / self.bpm
        if kind == 'steady': spans = [base] * n
        elif kind == 'steps':
            spans, now, cuts = [], base, sorted(r.sample(range(8, max(10, n - 8)), min(2, r.randint(1, 2))))
            for b in range(n):
                if b in [c - (c - self.first) % self.beats_a_bar for c in cuts]: now = min(1.2, max(.3, base * math.exp(r.uniform(-.35, .35))))
                spans.append(now)
        elif kind == 'drift':
            to = min(1.25, max(.29, base * math.exp(r.uniform(-.32, .32)))); a, b = sorted([r.uniform(0, 1), r.uniform(0, 1)])
            spans = [base * (to / base) ** min(1, max(0, (i / n - a) / max(.1, b - a))) for i in range(n)]
        elif kind == 'phrases':
            # Every phrase of some bars goes forward and lingers at its end.
            spans, x, phrase, depth = [], 0, r.choice([2, 4, 4]) * self.beats_a_bar, r.uniform(.04, .22)
            for i in range(n):
                part = ((i - self.first) % phrase) / phrase; x = .8 * x + r.gauss(0, .012)
                spans.append(base * math.exp(x + depth * (max(0, part - .6) / .4) ** 2 - depth / 3 * math.sin(math.pi * min(1, part / .7))))
        else:
            spans, x = [], 0
            for i in range(n): x = .93 * x + r.gauss(0, .022); spans.append(base * math.exp(x))
        self.times = [r.uniform(.0, 1.2) if r.random() < .6 else 0.]
        for s in spans: self.times.append(self.times[-1] + s)

    def time(self, beat):
        """Seconds of a place in beats, swung."""
        whole = min(len(self.times) - 2, max(0, math.floor(beat + 1e-9))); part = min(1, beat - whole)
        if self.swing != .5:
            half = part * 2; w = math.floor(half + 1e-9); f = half - w
            part = (self.swing * f) if w == 0 else self.swing + (1 - self.swing) * f if w == 1 else 1
        return self.times[whole] + part * (self.times[whole + 1] - self.times[whole])

    # --- harmony ----------------------------------------------------------------------------------
    def make_harmony(self):
        r = self.r
        progression = r.choice(PROGRESSIONS); second = r.choice(PROGRESSIONS)
        self.step = r.choice([1, 1, 1, 2, 2, .5] if self.beats_a_bar == 4 else [1, 1, 2])
        self.chord_of = lambda bar, half=0: (progression if (bar // 8) % 2 == 0 else second)[int(bar / self.step + (half if self.step == .5 else 0)) % 4]

    def pitch(self, degree, octave=0):
        return self.root + 12 * octave + self.scale[degree % 7] + 12 * (degree // 7)

    def chord(self, bar, beat, octave=1, seventh=False):
        d = self.chord_of(bar, 1 if beat >= self.beats_a_bar / 2 else 0)
        return [self.pitch(d + i, octave) for i in ([0, 2, 4, 6] if seventh else [0, 2, 4])]

    # --- players ----------------------------------------------------------------------------------
    def put(self, beat, length, channel, pitch, velocity, weight=0):
        place = (beat - self.first) % self.beats_a_bar
        if channel != 9 and abs(place) < .01: velocity += self.accent * .6
        elif channel != 9 and abs(place - round(place)) < .01: velocity += self.accent * .25
        while pitch > 100: pitch -= 12
        while pitch < 24: pitch += 12
        beat = self.placed(beat)
        if beat is not None: self.notes.append((beat, length, channel, int(pitch), int(min(127, max(12, velocity + self.r.gauss(0, 5) + weight)))))

    def cells(self, beats):
        """A rhythm of so many beats: (place, length)."""
        r = self.r
        simple = [[(0, 1)], [(0, .5), (.5, .5)], [(0, .75), (.75, .25)], [(0, .5), (.5, .25), (.75, .25)], [(0, .25), (.25, .25), (.5, .5)],
                  [(0, .25), (.25, .25), (.5, .25), (.75, .25)], [(.5, .5)], [], [(0, 1 / 3), (1 / 3, 1 / 3), (2 / 3, 1 / 3)]]
        weights = [30, 30, 8 if self.swing == .5 else 0, 8 if self.swing == .5 else 0, 6 if self.swing == .5 else 0, 6 * self.busy if self.swing == .5 else 0, 8 * self.sync, 6, 3 if self.swing == .5 else 6]
        if self.compound:
            t = 1 / 3
            simple = [[(0, 1)], [(0, t), (t, t), (2 * t, t)], [(0, 2 * t), (2 * t, t)], [(0, t), (t, 2 * t)], [(0, t / 2), (t / 2, t / 2), (t, t), (2 * t, t)], [(0, t * 1.5), (t * 1.5, t / 2), (2 * t, t)], [(2 * t, t)], []]
            weights = [16, 36 * self.busy, 30, 5, 6, 8, 4, 3]
        out, b = [], 0
        while b < beats:
            if not self.compound and beats - b >= 2 and r.random() < .22:
                out += [(b + p, l) for p, l in r.choice([[(0, 2)], [(0, 1.5), (1.5, .5)], [(0, .5), (.5, 1), (1.5, .5)] if self.sync > .5 else [(0, 1.5), (1.5, .5)]])]; b += 2; continue
            out += [(b + p, l) for p, l in r.choices(simple, weights)[0]]; b += 1
        if beats >= 3 and r.random() < .12: out = [(0, beats)]
        return out

    def melody(self, channel, program, octave, loud, bars):
        r = self.r; self.programs[channel] = program
        self.busy, self.sync = r.uniform(.3, 1.6), r.choice([.2, .5, 1.2])
        motifs = [self.cells(self.beats_a_bar) for _ in range(4)]
        form = r.choice([[0, 1, 0, 2], [0, 0, 1, 2], [0, 1, 2, 3], [0, 0, 0, 1], [0, 1, 0, 1]])
        degree = r.randint(0, 7); n = self.beats_a_bar
        for bar in bars:
            if r.random() < .06: continue
            for place, length in motifs[form[bar % 4]]:
                if place < .01 and r.random() < .7:
                    tone = self.chord_of(bar) % 7; degree = min((tone + o for o in (0, 2, 4, 7, 9, 11)), key=lambda x: abs(x - degree))
                else: degree += r.choice([-2, -1, -1, 1, 1, 2, 0])
                degree = max(-2, min(13, degree))
                self.put(self.first + bar * n + place, length * r.uniform(.7, 1), channel, self.pitch(degree, octave), loud)
        if self.upbeat and bars and bars[0] == 0:
            steps = [self.upbeat] if self.upbeat <= .5 else [self.upbeat / 2] * 2 if r.random() < .5 else [1] * int(self.upbeat)
            b = self.first - self.upbeat
            for s in steps: self.put(b, s * .9, channel, self.pitch(r.randint(0, 6), octave), loud); b += s

    def bass(self, channel, bars, loud):
        r, n = self.r, self.beats_a_bar; self.programs[channel] = r.choice(BASSES)
        t = 1 / 3
        kinds = {4: ['root', 'two', 'fifth', 'walk', 'eighths', 'dotted', 'sync', 'gallop'], 3: ['root', 'root', 'walk', 'one-three', 'eighths'], 2: ['root', 'fifth', 'eighths', 'walk']}[n]
        kind = r.choice(kinds if not self.compound else ['root', 'two', 'skip', 'eighths'])
        for bar in bars:
            at = self.first + bar * n; root = self.chord(bar, 0, 0)
            fig = {'root': [(0, n, 0)], 'two': [(0, n / 2, 0), (n / 2, n / 2, 0)], 'fifth': [(0, n / 2, 0), (n / 2, n / 2, 2)], 'walk': [(i, 1, i % 3) for i in range(n)],
                   'eighths': [(i / 2, .5, 0) for i in range(2 * n)], 'dotted': [(0, 1.5, 0), (1.5, .5, 0), (2, 2, 2)], 'sync': [(0, 1.5, 0), (1.5, 1.5, 0), (3, 1, 2)], 'one-three': [(0, 2, 0), (2, 1, 2)],
                   'gallop': [(i + p, l, 0) for i in range(n) for p, l in ((0, .5), (.5, .25), (.75, .25))], 'skip': [(i + p, l, 2 if p else 0) for i in range(n) for p, l in ((0, 2 * t), (2 * t, t))]}[kind]
            if kind == 'eighths' and self.compound: fig = [(i * t, t, 0) for i in range(3 * n)]
            for p, l, d in fig:
                if p >= n or r.random() < .03: continue
                tones = root if self.step != .5 else self.chord(bar, p, 0)
                self.put(at + p, l * .9, channel, tones[d % 3] - 12, loud)

    def comp(self, channel, program, octave, loud, bars):
        r, n, t = self.r, self.beats_a_bar, 1 / 3
        self.programs[channel] = program
        kinds = ['hold', 'beats', 'arp', 'arp', 'oompah', 'off', 'rhythm', 'alberti', 'strum'] if not self.compound else ['hold', 'beats', 'arp', 'arp', 'oompah', 'rhythm', 'strum']
        kind = r.choice(kinds); rate = r.choice([2, 2, 4]) if not self.compound else 3
        self.busy, self.sync = r.uniform(.3, 1.2), r.choice([.2, 1])
        rhythm = self.cells(n); up = r.random() < .5
        seventh = r.random() < .25
        for bar in bars:
            at = self.first + bar * n
            def hit(p, l, v=0, roll=0, only=None):
                tones = self.chord(bar, p, octave, seventh)
                for i, x in enumerate(tones if only is None else [tones[o % len(tones)] + 12 * (o // len(tones)) for o in only]): self.put(at + p + i * roll, l, channel, x, loud + v)
            if kind == 'hold': hit(0, n * .97); (self.step == .5 and hit(n / 2, n / 2))
            elif kind == 'beats': [hit(i, .8, 6 if i == 0 else 0) for i in range(n)]
            elif kind == 'oompah':
                hit(0, .9, 8, only=[-3 if not seventh else -4])
                for i in range(1, n): hit(i if not self.compound else i, .5, -4) if not (n == 4 and i == 2) else hit(2, .9, 4, only=[-1])
                if self.compound: [hit(i + 2 * t, t * .8, -6) for i in range(n)]
                elif n == 2: hit(.5, .4, -6); hit(1.5, .4, -6)
            elif kind == 'off': [hit(i + .5, .4) for i in range(n)]
            elif kind == 'rhythm': [hit(p, l * .8) for p, l in rhythm]
            elif kind == 'strum':
                for i in range(n * (3 if self.compound else 2)):
                    p = i / (3 if self.compound else 2)
                    if i % 2 and r.random() < .35: continue
                    hit(p, .5, 8 if p == int(p) else -6, roll=.012 if i % 2 == 0 else .006)
            else:
                order = [0, 1, 2, 3, 2, 1] if up else [0, 2, 1, 2]
                if kind == 'alberti': order = [0, 2, 1, 2]
                if self.compound: order = r.choice([[0, 1, 2], [0, 2, 1], [0, 1, 2, 3, 2, 1]]) if bar == bars[0] else order
                for i in range(n * rate): hit(i / rate, 1.2 / rate, 6 if i == 0 else 0, only=[order[i % len(order)]])

    def kit(self, bars):
        r, n, t = self.r, self.beats_a_bar, 1 / 3
        K, S, H, O, RIDE, CR = r.choice([35, 36]), r.choice([38, 40, 37, 39]), 42, 46, r.choice([51, 59, 42]), 49
        style = r.choice(['kit'] * 6 + ['hand'] * 2 + ['soft'] + ['floor'])
        grid = 3 if self.compound else r.choice([2, 2, 2, 4, 1])
        if self.swing != .5 and grid == 4: grid = 2
        loud = r.uniform(70, 112)
        def pattern(b, prob): return [i / (2 if not self.compound else 3) for i in range(int(b * (2 if not self.compound else 3))) if r.random() < prob]
        kick = {4: r.choice([[0, 1.5, 3], [0, .75, 1.5, 2.5], [0, 1, 1.5, 2.5, 3], [0, 2], [0, 2, 2.5], [0, 1.5, 2], [0, .5, 2], [0, 2.5], [0], [0, 1.5, 2.5], [0, .75, 2.5], [0, 1.5, 3.5], [0, 1, 2, 3]]), 3: r.choice([[0], [0], [0, 2.5], [0, 1.5], [0, 2]]), 2: r.choice([[0], [0, 1], [0, 1.5], [0, .5]])}[n]
        snare = {4: r.choice([[1, 3], [1, 3], [1, 3], [2], [1, 3, 3.75], [1, 2.75, 3]]), 3: r.choice([[1, 2], [1, 2], [2], [1]]), 2: r.choice([[1], [1], [.5, 1.5], [1, 1.5]])}[n]
        if self.compound: kick, snare = r.choice([([0], [1]), ([0, 1], []), ([0, 2 * t], [1]), ([0, 1 + 2 * t], [1]), ([0], [1, 1 + 2 * t])])
        if style == 'floor': kick = list(range(n))
        if self.swing != .5: kick, snare = [k for k in kick if (k * 2) % 1 == 0], [s for s in snare if (s * 2) % 1 == 0]
        hands = [(r.choice([60, 61, 62, 63, 64, 65, 66, 41, 43, 45, 47, 54, 56, 69, 70, 75, 76, 77, 82, 117 - 36]), pattern(n, r.uniform(.3, .8))) for _ in range(r.randint(1, 3))]
        frame = r.choice([41, 43, 45, 63, 64])
        off = self.swing == .5 and not self.compound and r.random() < .12
        hats = r.choice([H, H, H, RIDE, 70, 82, 54, None]) if style != 'soft' else r.choice([42, 70, None])
        opens = set(r.choice([[], [], [n - .5], [i + .5 for i in range(n)], [n - 1.5, n - .5], [.5]])) if not self.compound else set()
        ghosts = [p / 4 for p in range(4 * n) if r.random() < .25] if not self.compound and self.swing == .5 and r.random() < .2 else []
        foot = r.random() < .1
        variation = r.uniform(0, .12)
        for bar in bars:
            at = self.first + bar * n; fill = bar % r.choice([4, 8]) == 3 and r.random() < .5
            if style == 'hand':
                self.put(at, .2, 9, frame, loud + 10)
                for i in range(1, n): self.put(at + i, .2, 9, frame, loud - r.uniform(0, 30)) if r.random() < .8 else None
                for note, places in hands:
                    for p in places: r.random() > variation and self.put(at + p, .1, 9, note, loud - 18 + (10 if p == 0 else 0))
                continue
            if bar % 8 == 0 and r.random() < .5: self.put(at, 1, 9, CR, loud)
            for p in kick: r.random() > variation * .5 and self.put(at + p, .2, 9, K, loud + (8 if p == 0 else 0))
            for p in snare: not (fill and p >= n - 1) and r.random() > variation and self.put(at + p, .2, 9, S, loud)
            if variation and r.random() < variation * 3: self.put(at + r.choice(pattern(n, .5) or [0]), .2, 9, r.choice([K, S]), loud - 15)
            if fill:
                steps = 3 if self.compound else r.choice([2, 4]) if self.swing == .5 else 2
                for i in range(steps): self.put(at + n - 1 + i / steps, .2, 9, r.choice([S, 41, 43, 45, 47, 48, 50]), loud)
            if hats:
                for i in range(n * grid):
                    p = i / grid
                    if off and p == int(p): continue
                    if r.random() < variation * .5: continue
                    if self.swing != .5 and hats == RIDE and grid == 2 and i % 4 == 1: continue
                    self.put(at + p, .1, 9, O if hats == H and (p in opens or r.random() < .04) else hats, loud - r.choice([22, 14]) + (10 if p == int(p) else 0))
            if foot: [self.put(at + i, .1, 9, 44, loud - 20) for i in range(1, n, 2)]
            for p in ghosts: p not in snare and r.random() < .8 and self.put(at + p, .1, 9, S, r.uniform(18, 38))

    def riff(self, channels, bars, loud):
        """Power chords or single low notes in one rhythm for all, as loud guitars and synthesisers play."""
        r, n = self.r, self.beats_a_bar; program = r.choice([28, 29, 29, 30, 30, 27, 62, 80, 81, 38, 87, 90])
        self.busy, self.sync = r.uniform(.6, 2.5), r.choice([.5, 1.5, 3])
        step = 3 if self.compound else 2 if self.swing != .5 else r.choice([2, 4, 4])
        def figure():
            if r.random() < .4: return self.cells(n)
            places, at = [], 0
            while at < n * step:
                length = r.choice([1, 1, 1, 2, 2, 3, 4]); places.append((at / step, min(length, n * step - at) / step)); at += length
            if n == 4 and not self.compound and r.random() < .3: places = r.choice([[(0, 1.5), (1.5, 1.5), (3, 1)], [(0, .75), (.75, .75), (1.5, .5), (2, .75), (2.75, .75), (3.5, .5)], [(0, 1), (1.5, 1), (2.5, .5), (3, 1)], [(.5, .5), (1.5, .5), (2.5, .5), (3.5, .5)]])
            elif r.random() < .4: places = [(i / step, 1 / step) for i in range(n * step) if r.random() < .85 or i == 0]
            return places
        figures = [figure() for _ in range(2)]; form = r.choice([[0, 0, 0, 1], [0, 1, 0, 1], [0, 0, 0, 0]]); drone = r.random() < .5
        moves = [[r.choice([0, 0, 0, 0, 3, 5, 7, 10, 12, 1]) if drone else 0 for _ in f] for f in figures]
        for c in channels: self.programs[c] = program if c != 6 else r.choice([program, 33, 34, 36])
        for bar in bars:
            f = form[bar % 4]
            for (place, length), move in zip(figures[f], moves[f]):
                if r.random() < .02: continue
                root = (self.root if drone and r.random() < .97 else self.chord(bar, place, 0)[0]) + move
                for c in channels:
                    for x in ([root] if c == 6 else [root + 12, root + 19]): self.put(self.first + bar * n + place, length * r.uniform(.6, .98), c, x - (12 if c == 6 else 0), loud)

    def arpeggio(self, channel, bars, loud):
        """Even notes of a synthesiser or a plucked string, in a pattern that may not fit the bar."""
        r, n = self.r, self.beats_a_bar; self.programs[channel] = r.choice([80, 81, 82, 84, 86, 87, 98, 99, 46, 11, 7, 6, 45, 104, 107])
        rate = 3 if self.compound else 2 if self.swing != .5 else r.choice([2, 4, 4]); length = r.choice([3, 4, 4, 6, 8, 8]); order = [r.randint(0, 5) for _ in range(length)]
        for bar in bars:
            for i in range(n * rate):
                if r.random() < .05: continue
                tones = self.chord(bar, i / rate, 1); o = order[(bar * n * rate + i) % length]
                self.put(self.first + bar * n + i / rate, .8 / rate, channel, tones[o % 3] + 12 * (o // 3), loud)

    def dense(self, bars):
        """Drums that leave few gaps: double kick, blast, breaks, half time."""
        r, n = self.r, self.beats_a_bar; loud = r.uniform(70, 115); grid = 3 if self.compound else 2 if self.swing != .5 else 4
        kind = r.choice(['double', 'blast', 'half', 'break', 'drive', 'toms']); cymbal = r.choice([42, 46, 49, 51, 53, 57, 52])
        kick = [i / grid for i in range(n * grid) if r.random() < {'double': .8, 'blast': .5, 'half': .25, 'break': .4, 'drive': .5, 'toms': .35}[kind] or i == 0]
        snare = {'blast': [i + .5 for i in range(n)], 'half': [n / 2] if n % 2 == 0 else [n - 1]}.get(kind, list(range(1, n, 2)) if not self.compound else [1])
        if kind == 'break': snare = [s + r.choice([0, 0, .5, .75]) * (not self.compound) for s in snare] + [r.randrange(n * grid) / grid]
        each = r.choice([1, 1, .5, 2]) if not self.compound else r.choice([1, 1 / 3])
        for bar in bars:
            at = self.first + bar * n
            if bar % 8 == 7 and r.random() < .6:
                for i in range(n * grid // 2, n * grid): r.random() < .8 and self.put(at + i / grid, .1, 9, r.choice([38, 41, 43, 45, 47, 48, 50]), loud)
                bar_snare = [x for x in snare if x < n / 2]
            else: bar_snare = snare
            for x in kick: r.random() > .04 and self.put(at + x, .1, 9, 36, loud + (6 if x == 0 else -4))
            for x in bar_snare: x < n and self.put(at + x, .1, 9, r.choice([38, 40]), loud + 4)
            for i in range(int(n / each)): self.put(at + i * each, .2, 9, cymbal, loud - 12)
            if kind == 'toms': [self.put(at + i / grid, .1, 9, r.choice([41, 43, 45, 47]), loud - 8) for i in range(n * grid) if r.random() < .4]

    def write(self):
        r, every = self.r, range(self.bars)
        def section():
            """All bars, or all but a stretch where the player rests."""
            bars = list(every)
            if r.random() < .3: a = r.randrange(0, max(1, self.bars - 2)); b = a + r.choice([2, 4, 4, 8]); bars = [x for x in bars if not a <= x < b]
            return bars or list(every)
        if self.drums and r.random() < .45:
            (self.dense if r.random() < .6 else self.kit)(section())
            if r.random() < .75: self.riff(r.choice([[4, 6], [4, 5, 6], [4], [6]]), section(), r.uniform(60, 100))
            if r.random() < .5: self.arpeggio(7, section(), r.uniform(45, 85))
            if r.random() < .45: self.melody(3, r.choice(MELODIES + [29, 30, 80, 81, 62]), r.choice([1, 2]), r.uniform(60, 95), section())
            if r.random() < .45: self.comp(2, r.choice(PADS), 1, r.uniform(40, 75), section())
            if r.random() < .3: self.bass(1, section(), r.uniform(65, 100))
            if sum(1 for x in self.notes if x[2] != 9) > 40: return
        if self.drums:
            self.kit(section() if r.random() < .5 else list(every))
            if r.random() < .06: return
            if r.random() < .85: self.bass(1, section(), r.uniform(65, 105))
            if r.random() < .8: self.comp(2, r.choice(PADS), 1, r.uniform(40, 85), section())
            if r.random() < .35: self.comp(4, r.choice(PADS), r.choice([1, 2]), r.uniform(35, 75), section())
            if r.random() < .8: self.melody(3, r.choice(MELODIES), r.choice([1, 2]), r.uniform(60, 100), section())
            return
        family = r.choice(['piano'] * 4 + ['strings'] * 3 + ['guitar'] * 3 + ['harp', 'organ', 'mallets'] + ['mixed'] * 5)
        pick = lambda: r.choice(SOLO[family]) if family != 'mixed' else r.choice(PADS)
        one = pick()
        if family in ('piano', 'harp', 'mallets', 'organ'):
            self.comp(1, one, r.choice([0, 1]), r.uniform(45, 75), list(every)); self.melody(2, one, 2, r.uniform(65, 95), section())
            if r.random() < .3: self.comp(4, one, 0, r.uniform(45, 70), section())
        elif family == 'strings':
            if r.random() < .75: self.comp(1, pick(), 1, r.uniform(45, 75), section())
            if r.random() < .6: self.comp(4, r.choice([45, 48, 44, 42]), 0, r.uniform(45, 75), list(every))
            self.melody(2, r.choice([40, 41, 48]), 2, r.uniform(60, 95), section())
            if r.random() < .5: self.melody(5, r.choice([42, 43, 48]), 0, r.uniform(55, 85), section())
            if not any(n[2] in (1, 4) for n in self.notes): self.bass(3, list(every), r.uniform(60, 85)); self.programs[3] = r.choice([42, 43, 45])
        elif family == 'guitar':
            self.comp(1, one, 1, r.uniform(55, 90), list(every))
            if r.random() < .6: self.melody(2, one, 1, r.uniform(65, 95), section())
            if r.random() < .3: self.bass(3, section(), r.uniform(55, 80))
        else:
            self.comp(1, pick(), 1, r.uniform(45, 75), list(every)); self.melody(2, r.choice(MELODIES), 2, r.uniform(60, 95), section())
            if r.random() < .6: self.bass(3, section(), r.uniform(55, 90))
            if r.random() < .3: self.comp(4, pick(), 1, r.uniform(40, 70), section())
            if r.random() < .35: self.arpeggio(7, section(), r.uniform(40, 75))

    # --- files ------------------------------------------------------------------------------------
    def save(self, base):
        """Ticks run at 500,000 microseconds a quarter: times are written straight as seconds."""
        a_second = PPQ * 2
        r = self.r; events = []
        self.programs[9] = r.choice(KITS)
        for channel, program in self.programs.items():
            events.append((0, 0, mido.Message('program_change', channel=channel, program=program)))
            events.append((0, 0, mido.Message('control_change', channel=channel, control=10, value=r.randint(34, 94))))
        events.append((0, 0, mido.Message('control_change', channel=9, control=7, value=r.randint(80, 115))))
        strokes = {name: [] for name in (*STROKES.values(), 'soft')}
        for beat, length, channel, pitch, velocity in self.notes:
            on = max(0, self.time(beat) + r.gauss(0, self.human)); off = max(on + .04, self.time(beat + length) - .005)
            if channel == 9 and pitch in STROKES: strokes['soft' if velocity < SOFT else STROKES[pitch]].append(round(on, 4))
            events.append((int(on * a_second), 2, mido.Message('note_on', channel=channel, note=pitch, velocity=velocity)))
            events.append((int(off * a_second), 1, mido.Message('note_off', channel=channel, note=pitch)))
        events.sort(key=lambda e: (e[0], e[1]))
        file = mido.MidiFile(ticks_per_beat=PPQ); track = mido.MidiTrack(); file.tracks.append(track)
        now = 0
        for at, _, message in events: track.append(message.copy(time=at - now)); now = at
        file.save(base + '.mid')
        starts = [self.time(n[0]) for n in self.notes]; lo, hi = min(starts) - .02, max(starts) + .02
        beats = [(b, self.times[b]) for b in range(len(self.times) - 1) if lo <= self.times[b] <= hi]; heads = set(self.starts) | {self.starts[0] - self.beats_a_bar}
        if not self.pulse: beats = []
        json.dump(dict(kind='beats', beats=[round(t, 4) for _, t in beats], bars=[round(t, 4) for b, t in beats if b in heads],
                       metre=self.metre, compound=self.compound, swing=round(self.swing, 3), drums=self.drums,
                       **({'sections': [dict(s, start=round(self.time(s['start']), 3), end=round(self.time(s['end']), 3)) for s in self.sections]} if self.sections else {}),
                       strokes={name: sorted(set(times)) for name, times in strokes.items()}), open(base + '.truth.json', 'w'))


LEADS = [0, 4, 11, 13, 21, 22, 24, 25, *range(40, 43), 48, *range(52, 55), *range(56, 62), *range(64, 83), 85, 86, 91, 105, 109, 110, 111]


def lead(piece):
    """The same piece with new players: one or two lead, and few accompany them."""
    r, p = piece.r, piece; p.notes = []; p.programs = {}; every = list(range(p.bars))
    p.melody(3, r.choice(LEADS), r.choice([1, 1, 2, 2, 0]), r.uniform(75, 105), every)
    if r.random() < .75: p.comp(2, r.choice(PADS + [24, 25, 0, 46]), r.choice([0, 1]), r.uniform(35, 70), every)
    if r.random() < .4: p.bass(1, every, r.uniform(55, 85))
    if r.random() < .25: p.melody(5, r.choice(LEADS), r.choice([0, 1, 2]), r.uniform(60, 90), every)
    if r.random() < .25: p.kit(every)
    return p


FORMS = ['i v c v c b c e', 'i v v c v c c', 'v c v c b c', 'i v c b v c c e', 'v v c v c b v c', 'i v c v c c e', 'v c v c v c e']


def song(piece):
    """Sections of a song, each kind with its own harmony, players and figures whenever it comes."""
    r, p = piece.r, piece; form = r.choice(FORMS).split(); n = p.beats_a_bar
    p.bpm = r.uniform(78, 150); size = {'i': r.choice([4, 4, 8]), 'v': r.choice([8, 8, 16]), 'c': 8, 'b': r.choice([4, 8]), 'e': r.choice([4, 4, 8])}
    while sum(size[k] for k in form) * n * 60 / p.bpm > 170: form.pop(1)
    kinds = [k for k in form for _ in range(size[k])]; heads = [0]
    for k in form: heads.append(heads[-1] + size[k])
    p.bars = len(kinds); p.lengths = [n] * p.bars; p.starts = [p.first + i * n for i in range(p.bars + 1)]; p.make_tempo(); p.notes = []; p.programs = {}; p.step = 1
    own = {k: r.choice(PROGRESSIONS) for k in 'vcb'}; own['i'] = own[r.choice('vc')]; own['e'] = own['c']
    p.chord_of = lambda bar, half=0: own[kinds[min(bar, p.bars - 1)]][bar % 4]
    bass, pad, tune = r.choice(BASSES), r.choice(PADS), r.choice(MELODIES)
    for k in sorted(set(form)):
        bars = [i for i, x in enumerate(kinds) if x == k]; loud = {'i': -14, 'v': -8, 'c': 6, 'b': -12, 'e': -8}[k] * r.uniform(.3, 1)
        if p.drums and (k in 'vc' or r.random() < .3): p.kit(bars)
        if k in 'vce' or r.random() < .4: p.bass(1, bars, 80 + loud); p.programs[1] = bass
        p.comp(2, pad, 1, 66 + loud, bars); p.programs[2] = pad
        if k == 'c' or r.random() < .3: p.comp(4, r.choice(PADS), r.choice([1, 2]), 58 + loud, bars)
        if k in 'vc' or r.random() < .5: p.melody(3, tune, r.choice([1, 2]), 84 + loud, bars)
    p.sections = [dict(start=p.starts[a], end=p.starts[b], kind=k) for k, a, b in zip(form, heads, heads[1:])]
    return p


def kit(piece):
    """The same piece with its drums alone."""
    piece.notes = []; piece.programs = {}
    while not any(x[3] in STROKES for x in piece.notes): piece.notes = []; piece.kit(range(piece.bars))
    return piece


def strikes(piece):
    """No pulse: strokes with gaps of any length."""
    r, p = piece.r, piece; p.notes = []; p.programs = {2: r.choice([9, 11, 13, 45, 47, 112, 115, 116])}; at, seconds = 0, p.times[-1]
    keys = r.sample([36, 36, 38, 38, 42, 42, 46, 41, 45, 48, 37, 39, 56, 60, 64, 67, 70, 75, 76], r.randint(2, 7)); gap = r.uniform(.12, .8)
    p.times = [i * .5 for i in range(int(2 * seconds) + 4)]; p.human = 0
    while at < seconds - 1:
        drum = r.random() < .8
        p.notes.append((at * 2, .2, 9 if drum else 2, r.choice(keys) if drum else r.randint(40, 84), int(r.uniform(30, 120)))); at += max(.04, r.expovariate(1 / gap))
    p.swing = .5; p.pulse = False
    return p


if __name__ == '__main__':
    out, count = sys.argv[1], int(sys.argv[2]); seed = int(sys.argv[3]) if len(sys.argv) > 3 else 1
    os.makedirs(out, exist_ok=True); make = {'lead': lead, 'kit': kit, 'strikes': strikes, 'song': song}.get(''.join(sys.argv[4:]), lambda piece: piece)
    for i in range(count): make(Piece(random.Random(seed * 100003 + i))).save(f'{out}/m{seed}-{i:04d}')
