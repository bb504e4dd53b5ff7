import { NothingHere } from '@/ui/screening/nothing-here';

export default function NothingToWatch() {
  return (
    <NothingHere
      title="There is no film here"
      words="The link may not be whole, or the film is no longer shown. Ask whoever sent it to you."
    />
  );
}
