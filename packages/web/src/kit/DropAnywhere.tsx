/** All of the window takes what is dropped on it, and says so while it is held over it. */
import { Dropzone } from '@mantine/dropzone';

interface DropAnywhereProps {
  readonly take: (files: File[]) => void;
  /** What can be dropped. */
  readonly what: string;
}

export default function DropAnywhere({ take, what }: DropAnywhereProps) {
  return (
    <Dropzone.FullScreen
      onDrop={take}
      activateOnKeyboard={false}
      styles={{ inner: { pointerEvents: 'none' } }}
    >
      <div className="empty" style={{ height: '80vh', justifyContent: 'center' }}>
        <h2>Drop it here</h2>
        <p>{what}</p>
      </div>
    </Dropzone.FullScreen>
  );
}
