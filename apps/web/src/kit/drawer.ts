import './drawer.scss';

/** Bootstrap's drawer with its styles, which no page needs before one opens. */
export { default as Drawer } from 'react-bootstrap/Offcanvas';
