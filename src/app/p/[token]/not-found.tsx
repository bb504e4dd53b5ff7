import { NothingHere } from '@/ui/screening/nothing-here';

export default function NothingToMark() {
  return (
    <NothingHere
      title="There are no pictures here"
      words="The link may not be whole, or the time to choose is over. Ask whoever sent it to you."
    />
  );
}
