// The worker of a page that draws its frames.
import './from-the-page';
import './open-plates';
import '../viewer/drawing-worker';
