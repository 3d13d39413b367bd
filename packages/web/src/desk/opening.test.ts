import { Opening } from './opening.ts';

/** Opening with made-up connections; each `open` waits until it is answered here. */
function madeUp() {
  const log: string[] = [];
  const answers: { done: () => void; fail: (error: Error) => void }[] = [];
  const opening = new Opening((id) => {
    log.push(`connect ${id}`);
    return {
      outbox: {
        open: () =>
          new Promise<void>((done, fail) => {
            answers.push({ done, fail });
          }),
      },
      end: () => void log.push(`end ${id}`),
    };
  });
  return { opening, log, answers };
}

describe('opening a programme', () => {
  test('happens once, however often it is asked for', async () => {
    const { opening, log, answers } = madeUp();
    const [first, second] = [opening.open('ferry'), opening.open('ferry')];
    answers[0]?.done();
    await Promise.all([first, second]);
    expect(log).toEqual(['connect ferry']);
  });

  test('closes the one that was open', async () => {
    const { opening, log } = madeUp();
    void opening.open('ferry');
    void opening.open('tide');
    expect(log).toEqual(['connect ferry', 'end ferry', 'connect tide']);
    opening.close();
    expect([log.at(-1), opening.connection]).toEqual(['end tide', undefined]);
  });

  test('is tried again after it failed', async () => {
    const { opening, log, answers } = madeUp();
    const failing = opening.open('ferry');
    answers[0]?.fail(new Error('The server does not answer.'));
    await expect(failing).rejects.toThrow('does not answer');
    const again = opening.open('ferry');
    answers[1]?.done();
    await again;
    expect(log).toEqual(['connect ferry', 'end ferry', 'connect ferry']);
  });

  test('that fails late does not close what was opened after it', async () => {
    const { opening, log, answers } = madeUp();
    const late = opening.open('ferry');
    void opening.open('tide');
    answers[0]?.fail(new Error('late'));
    await expect(late).rejects.toThrow('late');
    expect(log).toEqual(['connect ferry', 'end ferry', 'connect tide']);
    expect(opening.connection).toBeDefined();
  });
});
