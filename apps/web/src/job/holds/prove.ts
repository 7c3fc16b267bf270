import { ENDPOINTS } from '@jubb/wire';
import { ask, LinkDown } from '../../link/client.ts';
import { outbox } from '../../link/outbox.ts';
import { queryClient } from '../../link/queries.ts';

/**
 * Has the server look at somebody's PIN, so that what they made here may be sent. False where there is no link: what they made
 * stays here until they are asked again. Throws what the server has against it.
 */
export async function proved(personId: string, pin: string): Promise<boolean> {
  try {
    const session = await ask(ENDPOINTS.session.prove, { body: { personId, pin } });
    queryClient.setQueryData(['session'], session);
    await outbox.begin(session.person.id, session.people);
    return true;
  } catch (error) {
    if (error instanceof LinkDown) return false;
    throw error;
  }
}
