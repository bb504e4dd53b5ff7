// The worker of a page that makes plates.
import './from-the-page';
import '../viewer/plate-worker';
