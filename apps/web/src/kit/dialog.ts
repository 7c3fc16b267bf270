import './dialog.scss';

/** Bootstrap's dialog with its styles, which no page needs before one opens. */
export { default as Dialog } from 'react-bootstrap/Modal';
