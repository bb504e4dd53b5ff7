/** Fields that keys are text in; not sliders and boxes to tick. */
export const TYPED_IN =
  'textarea, select, [contenteditable=true], input:not([type=range], [type=checkbox], [type=radio], [type=button])';
