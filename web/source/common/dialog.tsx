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

/** Something to read in a frame over the screen. What is longer than the window is scrolled, also by keys. */
export function Dialog({
  title,
  isWide = false,
  isScrolled = false,
  className,
  footer,
  onClose,
  children,
}: DialogProps & { readonly isScrolled?: boolean; readonly footer?: ReactNode }) {
  const titleId = useId();
  const scrolled = isScrolled ? { tabIndex: 0, role: 'region', 'aria-labelledby': titleId } : {};
  return (
    <Modal
      show
      onHide={onClose}
      animation={false}
      scrollable={isScrolled}
      aria-labelledby={titleId}
      {...(isWide ? { size: 'lg' as const } : {})}
    >
      <Modal.Header closeButton>
        <h2 id={titleId}>{title}</h2>
      </Modal.Header>
      <Modal.Body {...scrolled} {...(className === undefined ? {} : { className })}>
        {children}
      </Modal.Body>
      {footer === undefined ? null : <Modal.Footer>{footer}</Modal.Footer>}
    </Modal>
  );
}

/** A question in a frame: what is asked, what is wrong with the answer, and the one act. */
export function FormDialog({
  title,
  isWide = false,
  className,
  act,
  isReady = true,
  fault,
  onAct,
  onClose,
  children,
}: DialogProps & {
  readonly act: string;
  readonly isReady?: boolean;
  readonly fault: string | null | undefined;
  readonly onAct: () => void;
}) {
  const titleId = useId();
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (isReady) onAct();
  };
  return (
    <Modal
      show
      onHide={onClose}
      animation={false}
      aria-labelledby={titleId}
      {...(isWide ? { size: 'lg' as const } : {})}
    >
      <form onSubmit={submit}>
        <Modal.Header closeButton>
          <h2 id={titleId}>{title}</h2>
        </Modal.Header>
        <Modal.Body {...(className === undefined ? {} : { className })}>
          {children}
          {fault ? (
            <p className="fault" role="alert">
              {fault}
            </p>
          ) : null}
        </Modal.Body>
        <Modal.Footer>
          <button type="submit" className="btn btn-primary" disabled={!isReady}>
            {act}
          </button>
        </Modal.Footer>
      </form>
    </Modal>
  );
}
