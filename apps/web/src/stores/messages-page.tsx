import type { ReactElement } from 'react';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { dayWords } from '../places/today.tsx';
import { useMessages } from './queries.ts';

/** What the shop sent; a stand-in holds it in place of a post office. */
export function MessagesPage(): ReactElement {
  const { data: messages, error } = useMessages();
  return (
    <>
      <Title sub="Nothing leaves the house: a stand-in holds what would be sent, and each link opens what the customer would see.">
        Messages sent
      </Title>
      <Wrong error={error} />
      {!messages && !error ? <Loading what="the messages" /> : null}
      {messages?.length === 0 ? <p>Nothing was sent yet. A quote is sent from the Decide stage of a job.</p> : null}
      {(messages ?? []).map(({ id, to, subject, text, link, sentAt }) => (
        <section key={id} className="work mb-3" aria-label={subject}>
          <h2>
            {subject}{' '}
            <span className="soft">
              to {to}, {dayWords(sentAt)}
            </span>
          </h2>
          <p>{text}</p>
          {link === null ? null : (
            <a className="fig" href={link}>
              {location.origin}
              {link}
            </a>
          )}
        </section>
      ))}
    </>
  );
}
