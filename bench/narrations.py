"""Makes narrations whose words have known times, to measure weaving with.

    python3 bench/narrations.py OUT COUNT [SEED] [--language es|fr|de|it]

Each is spoken by another engine and voice (espeak-ng, flite, festival) from a made-up text, then put into room noise or
over a quiet bed of tones. Beside NAME.wav lie NAME.txt (what is said), NAME.truth.json (as ../shared/sound/speech has it) and
NAME.other.txt with NAME.other.json: the same sound with 5 to 10 % of the words of the script missing or never said.
The words' times are the engines' own. Needs numpy and the Debian packages espeak-ng, flite, festival, festvox-kallpc16k,
festvox-us-slt-hts. In other languages only espeak-ng speaks.
"""
import ctypes as c, json, os, random, subprocess, sys, tempfile
import numpy as np

sys.path.insert(0, os.path.join(os.path.dirname(__file__), '..', 'training'))
from voices import RATE, coloured, load, resample

NOUNS = """ferry chain winter water boat keeper morning evening crossing engine grease lamp tide harbour bell rope island school market bridge
gallery window kettle ledger gull lantern pier quarry orchard chimney blanket hammer whistle anchor barrel cabin cellar compass coast cradle
curtain drawer drum feather fence field fireplace flag fog furnace garden gate glove grain hatch hedge hill horse jacket kitchen ladder
library meadow mill mirror mountain needle oar paddle passenger path pebble pencil photograph pocket postcard pump railway reef river roof
saddle sail sand shed shelf ship shore shovel signal slipway smoke spring staircase station stone storm summer sweater table telegram tower
valley village volunteer wagon wall weather wheel wood workshop yard""".split()
VERBS = """carried crossed opened closed watched mended painted lifted counted followed answered remembered lost found measured polished gathered
pulled pushed sold bought borrowed drew drowned covered cleaned turned brought held left moved kept reached sent washed wrapped
dragged fastened hauled loaded named sketched tested tied touched warmed""".split()
ADJECTIVES = """old slow quiet grey heavy wet cold narrow broken bright careful crowded dusty early empty familiar foreign gentle green hollow huge
iron large late little long lonely low muddy new northern ordinary pale patient plain proud red rough rusty salt sharp silver small
smooth strange strong sudden tall thick thin wooden yellow""".split()
NAMES = """Skerrymoor Corrow Hallan Brenna Tamsin Odhran Maddern Pellow Isolde Fenwick Aldous Marwick Thessaly Quillane Dunmore Averil Bexton
Carrow Elspeth Gethin Hestia Jorund Kestrel Lowen Merrion Nessa Orla Perran Rosmergy Sorrel Trevanion Una Wyndle Yestin""".split()
OPENERS = ['Before that,', 'In the end,', 'On most days,', 'That year,', 'After the war,', 'Every spring,', 'At first,', 'For a while,', 'Even now,', 'Of course,']
LINKS = ['and', 'but', 'while', 'because', 'until', 'although', 'so', 'when', 'before', 'after']
ADVERBS = ['slowly', 'twice', 'again', 'carefully', 'by hand', 'without a word', 'in the dark', 'all at once', 'for years', 'every week']
UNITS = ['metres', 'miles', 'kilos', 'hours', 'minutes', 'people', 'steps', 'pounds', 'boxes', 'days']
OTHER = {
    'es': ('La barca cruza el río por la mañana. El agua está fría y el viento viene del norte. Nadie recuerda cuándo llegó la primera. '
           'Una niña cuenta las gaviotas sobre la cadena. El guardián enciende la lámpara y espera. Después de la tormenta, la orilla queda '
           'cubierta de piedras. Hay veintisiete pasajeros en la cubierta. Los domingos el puente se llena de gente. El viejo motor necesita grasa. '
           'Quien llega tarde tiene que esperar. Mañana vendrán los vecinos con herramientas. La carta está escrita con tinta azul.'),
    'fr': ('Le bac traverse la rivière le matin. L’eau est froide et le vent vient du nord. Personne ne se souvient du premier jour. '
           'Une petite fille compte les mouettes sur la chaîne. Le gardien allume la lampe et attend. Après la tempête, le rivage est couvert '
           'de pierres. Il y a vingt-sept passagers sur le pont. Le dimanche, la place se remplit de monde. Le vieux moteur a besoin de graisse. '
           'Celui qui arrive en retard doit attendre. Demain, les voisins viendront avec des outils. La lettre est écrite à l’encre bleue.'),
    'de': ('Die Fähre überquert am Morgen den Fluss. Das Wasser ist kalt, und der Wind kommt aus dem Norden. Niemand erinnert sich an die erste. '
           'Ein Mädchen zählt die Möwen auf der Kette. Der Wärter zündet die Lampe an und wartet. Nach dem Sturm ist das Ufer mit Steinen bedeckt. '
           'Es gibt siebenundzwanzig Fahrgäste an Deck. Am Sonntag füllt sich die Brücke mit Menschen. Der alte Motor braucht Fett. '
           'Wer zu spät kommt, muss warten. Morgen kommen die Nachbarn mit Werkzeug. Der Brief ist mit blauer Tinte geschrieben.'),
    'it': ('Il traghetto attraversa il fiume di mattina. L’acqua è fredda e il vento viene da nord. Nessuno ricorda quando arrivò il primo. '
           'Una bambina conta i gabbiani sulla catena. Il guardiano accende la lampada e aspetta. Dopo la tempesta, la riva è coperta di pietre. '
           'Ci sono ventisette passeggeri sul ponte. La domenica la piazza si riempie di gente. Il vecchio motore ha bisogno di grasso. '
           'Chi arriva tardi deve aspettare. Domani verranno i vicini con gli attrezzi. La lettera è scritta con inchiostro azzurro.'),
}


def clause(r):
    noun = lambda: ' '.join(([r.choice(ADJECTIVES)] if r.random() < .45 else []) + [r.choice(NOUNS)])
    subject = r.choice([f'the {noun()}', f'a {noun()}', r.choice(NAMES), 'nobody', 'they', 'she', 'he', f'the {noun()} of {r.choice(NAMES)}', f"{r.choice(NAMES)}'s {noun()}"])
    if subject.startswith('a ') and subject[2] in 'aeiou': subject = 'an ' + subject[2:]
    rest = r.choice([f'the {noun()}', f'{r.choice(["two", "three", "17", "forty", "250"])} {r.choice(UNITS)} of {r.choice(NOUNS)}', f'the {noun()} to the {noun()}', f'its {noun()}', f'us {r.choice(ADVERBS)}',
                     f'the {noun()} in {r.choice(["1931", "1887", "May", "November", "2004"])}', f'the {noun()} at {r.choice(["half past six", "noon", "ten o’clock"])}', f'the {noun()} under the {noun()}'])
    return f'{subject} {r.choice(VERBS)} {rest}'


def text(r, words):
    out, count = [], 0
    while count < words:
        s = clause(r)
        if r.random() < .5: s += r.choice([', ', ' ']) + r.choice(LINKS) + ' ' + clause(r)
        if r.random() < .25: s = r.choice(OPENERS) + ' ' + s
        elif r.random() < .06: s = f'There were {r.randint(3, 4000)} {r.choice(UNITS)} in the {r.choice(NOUNS)}'
        s = s[0].upper() + s[1:] + r.choice(['.', '.', '.', '.', '!', '?', '...'])
        out.append(s); count += len(s.split())
    return out


# espeak-ng, by its library: a word event tells how many characters of the text come before.
class Event(c.Structure):
    _fields_ = [('type', c.c_int), ('unique', c.c_uint), ('text_position', c.c_int), ('length', c.c_int), ('audio_position', c.c_int), ('sample', c.c_int), ('user', c.c_void_p), ('id', c.c_char * 8)]


def espeak(sentences, voice, speed, pitch):
    lib = c.CDLL('libespeak-ng.so.1'); rate = lib.espeak_Initialize(2, 0, None, 0)
    sound, words = [], []
    made = c.CFUNCTYPE(c.c_int, c.POINTER(c.c_short), c.c_int, c.POINTER(Event))
    pieces, events = [], []

    def heard(wave, count, event):
        if count > 0: pieces.append(np.ctypeslib.as_array(wave, (count,)).copy())
        i = 0
        while event[i].type: 
            if event[i].type == 1: events.append((event[i].text_position, event[i].audio_position / 1000))
            i += 1
        return 0
    callback = made(heard); lib.espeak_SetSynthCallback(callback)
    lib.espeak_SetVoiceByName(voice.encode()); lib.espeak_SetParameter(1, speed, 0); lib.espeak_SetParameter(3, pitch, 0)
    for s in sentences:
        pieces.clear(); events.clear(); raw = s.encode()
        lib.espeak_Synth(raw + b'\0', len(raw) + 1, 0, 1, 0, 1, None, None); lib.espeak_Synchronize()
        x = np.concatenate(pieces).astype(np.float32) / 32768
        starts, at = [], 0
        for token in s.split():
            at = s.index(token, at); starts.append(at + 1); at += len(token)
        times = [None] * len(starts)
        for position, when in events:
            k = max(i for i in range(len(starts)) if starts[i] <= max(1, position))
            if times[k] is None: times[k] = when
        sound.append((resample(x, rate), [(t, None) for t in times]))
    return sound


def flite(sentences, voice, stretch):
    lib = c.CDLL('libflite.so.1', mode=c.RTLD_GLOBAL)
    for name in ('cmulex', 'usenglish'): c.CDLL(f'libflite_{name}.so.1', mode=c.RTLD_GLOBAL)
    v = c.CDLL({'awb': 'libflite_cmu_us_awb.so.1'}.get(voice, f'libflite_cmu_us_{voice}.so.1'))
    lib.flite_init()
    for f in ('utt_wave', 'utt_relation', 'relation_head', 'item_next', 'item_daughter', 'item_as', 'item_prev', 'flite_synth_text', 'item_last_daughter'):
        if hasattr(lib, f): getattr(lib, f).restype = c.c_void_p
    lib.item_feat_float.restype = c.c_float
    register = getattr(v, f'register_cmu_us_{voice}'); register.restype = c.c_void_p
    made = c.c_void_p(register(None))
    lib.flite_feat_set_float.argtypes = [c.c_void_p, c.c_char_p, c.c_float]
    class Voice(c.Structure): _fields_ = [('name', c.c_char_p), ('features', c.c_void_p)]
    lib.feat_set_float.argtypes = [c.c_void_p, c.c_char_p, c.c_float]
    lib.feat_set_float(c.cast(made, c.POINTER(Voice)).contents.features, b'duration_stretch', stretch)
    class Wave(c.Structure): _fields_ = [('type', c.c_char_p), ('rate', c.c_int), ('count', c.c_int), ('channels', c.c_int), ('samples', c.POINTER(c.c_short))]
    P = c.c_void_p
    out = []
    for s in sentences:
        utt = P(lib.flite_synth_text(s.replace('’', "'").encode(), made))
        wave = c.cast(P(lib.utt_wave(utt)), c.POINTER(Wave)).contents
        x = np.ctypeslib.as_array(wave.samples, (wave.count,)).astype(np.float32) / 32768
        times = []
        token = lib.relation_head(P(lib.utt_relation(utt, b'Token')))
        while token:
            bounds = []
            word = lib.item_daughter(P(token))
            while word:
                syl = lib.item_as(P(word), b'SylStructure')
                syl = lib.item_daughter(P(syl)) if syl else None
                while syl:
                    seg = lib.item_daughter(P(syl))
                    while seg:
                        flat = P(lib.item_as(P(seg), b'Segment'))
                        prior = lib.item_prev(flat)
                        bounds.append((lib.item_feat_float(P(prior), b'end') if prior else 0., lib.item_feat_float(flat, b'end')))
                        seg = lib.item_next(P(seg))
                    syl = lib.item_next(P(syl))
                word = lib.item_next(P(word))
            times.append((bounds[0][0], bounds[-1][1]) if bounds else (None, None))
            token = lib.item_next(P(token))
        out.append((resample(x, wave.rate), times))
    return out


def festival(sentences, voice):
    with tempfile.TemporaryDirectory() as folder:
        script = [f'(voice_{voice})']
        for i, s in enumerate(sentences):
            plain = s.replace('’', "'").replace('"', '')
            script.append(f'(set! u (utt.synth (Utterance Text "{plain}"))) (utt.save.wave u "{folder}/{i}.wav") (set! f (fopen "{folder}/{i}.txt" "w")) '
                          '(mapcar (lambda (t) (if (item.daughters t) (begin (mapcar (lambda (w) (format f "%f %f " (item.feat w "word_start") (item.feat w "word_end"))) '
                          '(item.daughters t)) (format f "\\n")))) (utt.relation.items u \'Token)) (fclose f)')
        path = f'{folder}/s.scm'; open(path, 'w').write('\n'.join(script))
        subprocess.run(['festival', '-b', path], check=True, capture_output=True)
        out = []
        for i, s in enumerate(sentences):
            lines = open(f'{folder}/{i}.txt').read().split('\n')[:-1]
            times = [(v[0], max(v[1::2])) for v in ([float(n) for n in line.split()] for line in lines)]
            out.append((resample(*load(f'{folder}/{i}.wav')), times))
        return out


def bed(g, r, n):
    """Chords of plucked tones."""
    x = np.zeros(n, np.float32); t = np.arange(int(1.2 * RATE)) / RATE; at = 0
    while at < n:
        root = 110 * 2 ** (r.choice([0, 3, 5, 7, 8, 10]) / 12)
        for step in (0, 4, 7, 12):
            f = root * 2 ** (step / 12)
            tone = sum(np.sin(2 * np.pi * f * h * t) / h ** 1.5 for h in range(1, 6)) * np.exp(-t * r.uniform(1, 4))
            m = min(len(t), n - at); x[at:at + m] += tone[:m].astype(np.float32)
        at += int(r.uniform(.3, .8) * RATE)
    return x


def main():
    args = [a for a in sys.argv[1:]]
    language = args.pop(args.index('--language') + 1) if '--language' in args else 'en'
    args = [a for a in args if a != '--language']
    out, count, seed = args[0], int(args[1]), int(args[2]) if len(args) > 2 else 1
    os.makedirs(out, exist_ok=True)
    kinds = ['espeak', 'flite', 'festival'] if language == 'en' else ['espeak']
    for item in range(count):
        r = random.Random(f'{seed}/{item}/{language}'); g = np.random.default_rng(seed * 1000 + item)
        kind = kinds[item % len(kinds)]
        if language == 'en': sentences = text(r, 150)
        else: sentences = [s.strip() + '.' for s in OTHER[language].split('.') if s.strip()]; r.shuffle(sentences)
        if kind == 'espeak':
            voice = r.choice(['en', 'en-us', 'en-gb-x-rp', 'en-gb-scotland']) if language == 'en' else language
            voice += r.choice(['', '+m1', '+m3', '+m7', '+f2', '+f4']); said = espeak(sentences, voice, r.randint(135, 185), r.randint(35, 60))
        elif kind == 'flite': voice = ['slt', 'rms', 'awb', 'kal16'][item // 3 % 4]; said = flite(sentences, voice, r.uniform(.9, 1.2))
        else: voice = ['kal_diphone', 'cmu_us_slt_arctic_hts'][item // 3 % 2]; said = festival(sentences, voice)
        sound, words, at = [np.zeros(int(.7 * RATE), np.float32)], [], .7
        for s, (x, times) in zip(sentences, said):
            tokens = s.split()
            known = times if len(times) == len(tokens) else [(None, None)] * len(tokens)
            for token, (start, end) in zip(tokens, known):
                words.append({'text': token, 'start': None if start is None else at + start, 'end': None if end is None else at + end, **({'unknown': True, 'start': 0} if start is None else {}), **({'onlyStart': True} if end is None else {})})
            gap = r.uniform(.1, 1.2); sound += [x, np.zeros(int(gap * RATE), np.float32)]; at += len(x) / RATE + int(gap * RATE) / RATE
        x = np.concatenate(sound); x *= .3 / np.abs(x).max()
        power = np.mean(x[np.abs(x) > .003] ** 2)
        for label, snr in (('clean', None), ('20', 20), ('15', 15), ('bed', 16)):
            y = x
            if snr:
                noise = bed(g, r, len(x)) if label == 'bed' else coloured(g, len(x), r.uniform(.8, 1.6))
                y = x + noise * np.sqrt(power / np.mean(noise ** 2) / 10 ** (snr / 10))
            name = f'{out}/{kind}-{item}-{label}'
            import wave
            with wave.open(name + '.wav', 'wb') as w:
                w.setnchannels(1); w.setsampwidth(2); w.setframerate(RATE); w.writeframes((np.clip(y, -1, 1) * 32767).astype('<i2').tobytes())
            truth = {'duration': len(y) / RATE, 'language': language, 'pieces': [], 'words': words, 'voice': voice, 'background': label}
            json.dump(truth, open(name + '.truth.json', 'w')); open(name + '.txt', 'w').write(' '.join(sentences))
            if label != 'clean' or language != 'en': continue
            rr = random.Random(f'{seed}/{item}'); other, others, said_ = [], [], []
            share = rr.uniform(.05, .1)
            for token, w in zip(' '.join(sentences).split(), words):
                if rr.random() < share / 2: continue
                other.append(token); others.append(w)
                if rr.random() < share / 2: other.append(rr.choice(NOUNS + ADJECTIVES + VERBS)); others.append({'text': other[-1], 'start': None, 'end': None})
            base = f'{out}/{kind}-{item}-other'
            os.path.exists(base + '.wav') or os.symlink(os.path.basename(name) + '.wav', base + '.wav')
            json.dump({**truth, 'words': others, 'background': 'script differs'}, open(base + '.truth.json', 'w')); open(base + '.txt', 'w').write(' '.join(other))


if __name__ == '__main__': main()
