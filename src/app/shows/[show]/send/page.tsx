import { SendStation } from '@/ui/send/send-station';

export default function SendPage() {
  return <SendStation />;
}
