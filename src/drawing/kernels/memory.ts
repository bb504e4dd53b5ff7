// Memory handed out to the caller, 16-byte aligned (AssemblyScript's TLSF allocator).

export function allocate(byteCount: i32): usize {
  return heap.alloc(<usize>byteCount);
}

export function release(pointer: usize): void {
  heap.free(pointer);
}

export function copyBytes(to: usize, from: usize, byteCount: i32): void {
  memory.copy(to, from, <usize>byteCount);
}

export function fillBytes(to: usize, value: i32, byteCount: i32): void {
  memory.fill(to, <u8>value, <usize>byteCount);
}
