import { maybe, orNull } from '../../schema/schema';
import { CAPTION_LOOK, LANGUAGE, type CaptionLook } from '../caption';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** Whether captions are part of the picture, how they look then, and in which language the show is spoken. What is not named stays. */
export interface SetCaptionLook {
  readonly kind: 'set-caption-look';
  /** Null: they are no part of the picture. */
  readonly look?: CaptionLook | null;
  /** Null: as usual. */
  readonly language?: string | null;
}

export const setCaptionLook: EditRecord<SetCaptionLook> = {
  kind: 'set-caption-look',
  parts: { look: maybe(orNull(CAPTION_LOOK)), language: maybe(orNull(LANGUAGE)) },
  apply(show, edit) {
    const { captionLook, language, ...rest } = show;
    const [nextLook, nextLanguage] = [
      edit.look === undefined ? captionLook : edit.look,
      edit.language === undefined ? language : edit.language,
    ];
    return done(
      { ...rest, ...(nextLook && { captionLook: nextLook }), ...(nextLanguage && { language: nextLanguage }) },
      {
        kind: 'set-caption-look',
        ...(edit.look !== undefined && { look: captionLook ?? null }),
        ...(edit.language !== undefined && { language: language ?? null }),
      },
    );
  },
  touched: (edit) => [
    ...(edit.look === undefined ? [] : ['caption-look']),
    ...(edit.language === undefined ? [] : ['language']),
  ],
  sentence: (edit) => (edit.look === undefined ? 'change the language' : 'change how captions look'),
};
