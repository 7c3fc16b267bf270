import type { ReactElement } from 'react';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { dayWords } from '../kit/days.ts';
import { useMessages } from './queries.ts';

/** What the shop sent; a stand-in holds it in place of a post office. */
export function MessagesPage(): ReactElement {
  const { data: messages, error } = useMessages();
  return (
    <>
      <Title sub="Nothing leaves the house: a stand-in holds what would be sent. A quote's private link stands here no more than anywhere else: who sent it saw it once, and makes a new one at the quote.">
        Messages sent
      </Title>
      <Wrong error={error} />
      {!messages && !error ? <Loading what="the messages" /> : null}
      {messages?.length === 0 ? <p>Nothing was sent yet. A quote is sent from the Decide stage of a job.</p> : null}
      {(messages ?? []).map(({ id, to, subject, text, sentAt }) => (
        <section key={id} className="work mb-3" aria-label={subject}>
          <h2>
            {subject}{' '}
            <span className="soft">
              to {to}, {dayWords(sentAt)}
            </span>
          </h2>
          <p>{text}</p>
        </section>
      ))}
    </>
  );
}
