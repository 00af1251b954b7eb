import type { SystemSummary } from '@periwinkle/protocol/wire';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { FormDialog } from '../common/dialog';
import { idFrom } from '../common/id-from';
import { api } from '../data/api';
import { starterDocuments } from './starter-system';

/** Asks for the title of a new system, or of the copy of one. */
export function NewSystemDialog({
  from,
  onClose,
  onDone,
}: {
  from: SystemSummary | null;
  onClose: () => void;
  onDone: () => Promise<void>;
}) {
  const navigate = useNavigate();
  const [title, setTitle] = useState(from ? `${from.title}, a copy` : '');
  const id = idFrom(title);
  const make = useMutation({
    mutationFn: () =>
      from ? api.duplicate(from.id, { id, title }) : api.create(starterDocuments(id, title)),
    onSuccess: async system => {
      await onDone();
      onClose();
      if (!from) void navigate(`/${system.id}`);
    },
  });
  return (
    <FormDialog
      title={from ? `Duplicate ${from.title}` : 'New system'}
      act={from ? 'Duplicate' : 'Make it'}
      isReady={id !== '' && !make.isPending}
      fault={make.error?.message}
      onAct={make.mutate}
      onClose={onClose}
    >
      <label className="form-label" htmlFor="title">
        Title
      </label>
      <input
        id="title"
        className="form-control"
        autoFocus
        value={title}
        maxLength={100}
        onChange={event => setTitle(event.target.value)}
      />
      <p className="said" style={{ margin: '8px 0 0' }}>
        {id ? (
          <>
            Its address will be <code>/{id}</code>.
          </>
        ) : (
          'A few letters are needed for its address.'
        )}
      </p>
    </FormDialog>
  );
}
