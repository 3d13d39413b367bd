/** The list of keys. */
import { modals } from '@mantine/modals';
import classes from './KeysHelp.module.css';
import type { ListedKey } from './keys/key.ts';

export function openHelp(keys: readonly ListedKey[]): void {
  const groups = new Map<string, ListedKey[]>();
  for (const key of keys) groups.set(key.group, [...(groups.get(key.group) ?? []), key]);
  modals.open({
    modalId: 'keys',
    title: 'Keys',
    size: 980,
    children: (
      <div className={classes.groups}>
        {[...groups].map(([group, members]) => (
          <section key={group}>
            <h3>{group}</h3>
            <dl>
              {members.map((key) => (
                <div key={key.keys + key.does}>
                  <dt>
                    {key.keys.split(' ').length > 1 && !key.keys.startsWith('Page') ? (
                      key.keys.split(' ').map((part) => (
                        <kbd key={part} className="key">
                          {part}
                        </kbd>
                      ))
                    ) : (
                      <kbd className="key">{key.keys}</kbd>
                    )}
                  </dt>
                  <dd>{key.does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    ),
  });
}
