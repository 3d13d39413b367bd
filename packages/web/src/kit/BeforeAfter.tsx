/** What texts are now and what they would become, side by side. */
import { PreviewTable } from './PreviewTable.tsx';

export interface Compared {
  readonly before: readonly string[];
  readonly after: readonly string[];
}

const Texts = ({ texts }: { texts: readonly string[] }) => (
  <td dir="auto">
    {texts.map((text, at) => (
      <p key={at}>{text}</p>
    ))}
  </td>
);

export const BeforeAfter = ({ all }: { all: readonly Compared[] }) => (
  <PreviewTable
    texts
    head={['Before', 'After']}
    all={all}
    cells={({ before, after }) => (
      <>
        <Texts texts={before} />
        <Texts texts={after} />
      </>
    )}
  />
);
