/** The name of a pattern, which is changed where it stands. */
import { TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import classes from './PatternsPlace.module.css';

export function Name({ name, keep }: { name: string; keep: (name: string) => void }) {
  const [text, setText] = useState(name);
  useEffect(() => setText(name), [name]);
  const leave = (typed: string) =>
    typed.trim() === '' ? setText(name) : typed !== name && keep(typed);
  return (
    <TextInput
      size="xs"
      aria-label="Name of the pattern"
      classNames={{ input: classes.name ?? '' }}
      value={text}
      maxLength={200}
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={(event) => leave(event.currentTarget.value)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setText(name);
      }}
    />
  );
}
