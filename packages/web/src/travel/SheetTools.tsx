/** The tools of a sheet: the marks of a line that cannot be guessed, and playing the lines that are selected. */
import { Button, Menu } from '@mantine/core';
import {
  IconAlignCenter,
  IconAlignLeft,
  IconAlignRight,
  IconChevronDown,
  IconLayoutSidebarRight,
  IconLetterCase,
  IconLetterT,
  IconLink,
  IconMinus,
  IconPhoto,
  IconPinned,
  IconSlash,
  IconTextDecrease,
  IconTextIncrease,
} from '@tabler/icons-react';
import type { ReactNode, RefObject } from 'react';
import { showWindow } from '../desk/windows.ts';
import type { SheetEditor } from './sheet/SheetEditor.ts';
import classes from './Sheet.module.css';

/** Narrow, so that all of them stand in one row. */
const TOOL = { root: { height: 26, paddingInline: 5 } };

interface SheetToolsProps {
  readonly crawl: boolean;
  /** Names of the pictures that a line can be. */
  readonly pictures: readonly string[];
  readonly editor: RefObject<SheetEditor | null>;
  readonly play: () => void;
}

export function SheetTools({ crawl, pictures, editor, play }: SheetToolsProps) {
  const mark =
    (text: string, ownLine = false) =>
    () =>
      editor.current?.mark(text, ownLine);
  const choices = (label: string, items: ReactNode) => (
    <Menu position="bottom-start">
      <Menu.Target>
        <Button styles={TOOL} rightSection={<IconChevronDown size={13} />}>
          {label}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>{items}</Menu.Dropdown>
    </Menu>
  );
  const kept = (
    <>
      <Menu.Item leftSection={<IconLink size={16} />} onClick={mark('keep together', true)}>
        Keep together
      </Menu.Item>
      <Menu.Item leftSection={<IconPinned size={16} />} onClick={mark('stays')}>
        Always keep
      </Menu.Item>
      <Menu.Item
        leftSection={<IconSlash size={16} />}
        rightSection={<kbd className="key">Ctrl /</kbd>}
        onClick={() => editor.current?.toggleComment()}
      >
        Leave out or restore
      </Menu.Item>
    </>
  );
  return (
    <div className={classes.tools} role="toolbar" aria-label="Marks of a line">
      {crawl ? (
        choices('Line', kept)
      ) : (
        <>
          <Button styles={TOOL} onClick={mark('heading')}>
            Heading
          </Button>
          {choices(
            'Columns',
            <>
              {[2, 3, 4].map((count) => (
                <Menu.Item key={count} onClick={mark(`${count} columns`, true)}>
                  {count} columns, balanced
                </Menu.Item>
              ))}
              <Menu.Item onClick={mark('2 columns, filled', true)}>2 columns, filled</Menu.Item>
              <Menu.Item
                leftSection={<IconLayoutSidebarRight size={16} />}
                onClick={mark('beside', true)}
              >
                Beside the block above
              </Menu.Item>
            </>,
          )}
          {choices(
            'Line',
            <>
              <Menu.Item leftSection={<IconLetterT size={16} />} onClick={mark('title')}>
                Title
              </Menu.Item>
              <Menu.Item leftSection={<IconTextIncrease size={16} />} onClick={mark('larger')}>
                Larger text
              </Menu.Item>
              <Menu.Item leftSection={<IconTextDecrease size={16} />} onClick={mark('smaller')}>
                Smaller text
              </Menu.Item>
              <Menu.Divider />
              <Menu.Item leftSection={<IconAlignLeft size={16} />} onClick={mark('left')}>
                Align left
              </Menu.Item>
              <Menu.Item leftSection={<IconAlignCenter size={16} />} onClick={mark('centre')}>
                Align centre
              </Menu.Item>
              <Menu.Item leftSection={<IconAlignRight size={16} />} onClick={mark('right')}>
                Align right
              </Menu.Item>
              <Menu.Divider />
              {kept}
              <Menu.Divider />
              <Menu.Item
                leftSection={<IconLetterCase size={16} />}
                rightSection={<kbd className="key">Y</kbd>}
                onClick={() => showWindow('sheetLetters')}
              >
                Capitals
              </Menu.Item>
            </>,
          )}
          {choices(
            'Insert',
            <>
              <Menu.Item leftSection={<IconMinus size={16} />} onClick={mark('rule', true)}>
                Rule
              </Menu.Item>
              {pictures.length === 0 ? (
                <Menu.Label>For a picture, drop a PNG, JPEG, WebP or SVG here first.</Menu.Label>
              ) : (
                pictures.map((name) => (
                  <Menu.Item
                    key={name}
                    leftSection={<IconPhoto size={16} />}
                    onClick={mark(`picture ${name}`, true)}
                  >
                    {name}
                  </Menu.Item>
                ))
              )}
            </>,
          )}
        </>
      )}
      <Button styles={TOOL} title="Play the selected lines (Ctrl Enter)" onClick={play}>
        Play lines
      </Button>
    </div>
  );
}
