import { Colours, SAMPLINGS, type Matrix, type Planes } from './colour.ts';

/** Pixels of two by two squares of one colour, as many as fit. */
function squares(width: number, height: number, colour: (x: number, y: number) => number[]) {
  const pixels = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      pixels.set([...colour(x >> 1, y >> 1), 255], 4 * (y * width + x));
  return pixels;
}

function samplingOf(name: string) {
  const sampling = SAMPLINGS.get(name);
  if (!sampling) throw new Error(`There is no ${name}.`);
  return sampling;
}

const planesOf = (width: number, height: number, matrix: Matrix): Planes => ({
  layout: [
    { offset: 0, stride: width },
    { offset: width * height, stride: width / 2 },
    { offset: (width * height * 5) / 4, stride: width / 2 },
  ],
  sampling: samplingOf('I420'),
  width,
  height,
  matrix,
  fullRange: false,
});

describe('the colours of a frame', () => {
  it.each(['bt601', 'bt709', 'bt2020'] as const)(
    'come back as they were written, by %s',
    (matrix) => {
      for (const [width, height] of [
        [64, 8],
        [22, 6],
        [26, 4],
      ] as const) {
        const pixels = squares(width, height, (x, y) => [
          (x * 37) % 256,
          (y * 91 + x * 5) % 256,
          (x * y * 53) % 256,
        ]);
        const colours = new Colours();
        const written = colours.fromRgba(pixels, width, height, matrix).slice();
        colours.room(written.length).set(written);
        const read = colours.toRgba(planesOf(width, height, matrix));
        const off = read.map((value, at) => Math.abs(value - (pixels[at] as number)));
        // What is rounded away twice.
        expect(Math.max(...off)).toBeLessThanOrEqual(3);
      }
    },
  );

  it('are written as the standard has them: white, black and red by BT.709', () => {
    const colours = new Colours();
    const of = (...colour: number[]) => {
      const written = colours.fromRgba(
        squares(8, 2, () => colour),
        8,
        2,
        'bt709',
      );
      return [written[0], written[16], written[20]];
    };
    expect(of(255, 255, 255)).toEqual([235, 128, 128]);
    expect(of(0, 0, 0)).toEqual([16, 128, 128]);
    expect(of(255, 0, 0)).toEqual([63, 102, 240]);
  });

  it('are read alike from planes of either kind, and of more bits', () => {
    const [width, height] = [20, 4];
    const pixels = squares(width, height, (x, y) => [40 * y + 9 * x, 20 * x, 255 - 11 * x]);
    const colours = new Colours();
    const written = colours.fromRgba(pixels, width, height, 'bt709').slice();
    colours.room(written.length).set(written);
    const plain = planesOf(width, height, 'bt709');
    const read = colours.toRgba(plain);

    const luma = width * height;
    const paired = Uint8Array.from(written);
    for (let at = 0; at < luma / 4; at++) {
      paired[luma + 2 * at] = written[luma + at] as number;
      paired[luma + 2 * at + 1] = written[(luma * 5) / 4 + at] as number;
    }
    colours.room(paired.length).set(paired);
    const layout = [...plain.layout.slice(0, 1), { offset: luma, stride: width }];
    expect(colours.toRgba({ ...plain, layout, sampling: samplingOf('NV12') })).toEqual(read);

    const deep = Uint16Array.from(written, (value) => value << 2);
    colours.room(2 * written.length).set(new Uint8Array(deep.buffer));
    const doubled = plain.layout.map(({ offset, stride }) => ({
      offset: 2 * offset,
      stride: 2 * stride,
    }));
    expect(colours.toRgba({ ...plain, layout: doubled, sampling: samplingOf('I420P10') })).toEqual(
      read,
    );
  });
});
