import { useId, type FormEvent, type ReactNode } from 'react';
import Modal from 'react-bootstrap/Modal';

interface DialogProps {
  readonly title: ReactNode;
  /** Wide, for tables and lists. */
  readonly isWide?: boolean;
  readonly className?: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** Something in a frame over the screen. What is longer than the window is scrolled, also by keys. */
export function Dialog({
  title,
  isWide = false,
  isScrolled = false,
  className,
  footer,
  onSubmit,
  onClose,
  children,
}: DialogProps & {
  readonly isScrolled?: boolean;
  readonly footer?: ReactNode;
  /** Makes a form of it. */
  readonly onSubmit?: (event: FormEvent) => void;
}) {
  const titleId = useId();
  const scrolled = isScrolled ? { tabIndex: 0, role: 'region', 'aria-labelledby': titleId } : {};
  const content = (
    <>
      <Modal.Header closeButton>
        <h2 id={titleId}>{title}</h2>
      </Modal.Header>
      <Modal.Body {...scrolled} {...(className === undefined ? {} : { className })}>
        {children}
      </Modal.Body>
      {footer === undefined ? null : <Modal.Footer>{footer}</Modal.Footer>}
    </>
  );
  return (
    <Modal
      show
      onHide={onClose}
      animation={false}
      scrollable={isScrolled}
      aria-labelledby={titleId}
      {...(isWide ? { size: 'lg' as const } : {})}
    >
      {onSubmit ? <form onSubmit={onSubmit}>{content}</form> : content}
    </Modal>
  );
}

/** A question in a frame: what is asked, what is wrong with the answer, and the one act. */
export function FormDialog({
  act,
  isReady = true,
  fault,
  onAct,
  children,
  ...frame
}: DialogProps & {
  readonly act: string;
  readonly isReady?: boolean;
  readonly fault: string | null | undefined;
  readonly onAct: () => void;
}) {
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (isReady) onAct();
  };
  return (
    <Dialog
      {...frame}
      onSubmit={submit}
      footer={
        <button type="submit" className="btn btn-primary" disabled={!isReady}>
          {act}
        </button>
      }
    >
      {children}
      {fault ? (
        <p className="fault" role="alert">
          {fault}
        </p>
      ) : null}
    </Dialog>
  );
}
