import type { Box } from './box';

/** What a picture shows, found out from its pixels by methods that can be wrong; kept as a fact of its own, since it takes longer than looking at the file. */
export interface FocusFacts {
  readonly faces: readonly FoundFace[];
  readonly subjects: readonly FoundSubject[];
  /** What stands out by colour, whatever it is; null when nothing does. */
  readonly salient: Box | null;
  /** How sharp the sharpest parts are, 0 (nothing is)…1, comparable between pictures of one scene. */
  readonly sharpness: number;
  /** Faces were not looked for: a studio does not want them to be. */
  readonly facesSought?: false;
  /** By how many degrees it hangs askew, clockwise; only where that is sure. */
  readonly tilt?: number;
  /** Only when it is turned so by a quarter are faces, people, animals or things that stand found in it, or does its sky lie above. */
  readonly sideways?: 'clockwise' | 'counter-clockwise';
}

export interface FoundFace extends Box {
  /** 0…1 */
  readonly score: number;
  /** Of the face alone, as `FocusFacts.sharpness`. */
  readonly sharpness: number;
  /** How far its eyes are open: the height of the lids’ gap by its width, mean of both eyes, 0…1. Left out where that cannot be told. */
  readonly eyes?: number;
}

export interface FoundSubject extends Box {
  readonly kind: 'person' | 'animal';
  readonly score: number;
}

/** A ring that a person put on a picture: it is about this. Centre and radius in shares of the upright picture’s sides; the radius of its width. */
export interface FocusRing {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** What counts when a picture is framed. */
export interface Focus {
  /** What must be seen, best of all where the move ends. */
  readonly about: Box;
  /** What may never be cut: faces with their hair and chin. */
  readonly whole: readonly Box[];
  /** Who says so. */
  readonly from: 'person' | 'faces' | 'subjects' | 'colours';
}

/** What is left when nothing is to be known of faces. */
export function withoutFaces({ subjects, salient, sharpness, tilt }: FocusFacts): FocusFacts {
  return { faces: [], facesSought: false, subjects, salient, sharpness, ...(tilt !== undefined && { tilt }) };
}
