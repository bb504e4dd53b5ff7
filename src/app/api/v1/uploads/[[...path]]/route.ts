import { handleUpload } from '@/server/assets/uploads';

export const dynamic = 'force-dynamic';
export {
  handleUpload as GET,
  handleUpload as HEAD,
  handleUpload as POST,
  handleUpload as PATCH,
  handleUpload as DELETE,
  handleUpload as OPTIONS,
};
