// What the runner's numbers are held against: the same work in C, -O2, called as "truth WHAT FILE SECONDS".
#define _GNU_SOURCE
#include <fcntl.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/stat.h>
#include <time.h>
#include <unistd.h>

static double now(void) {
  struct timespec t;
  clock_gettime(CLOCK_MONOTONIC, &t);
  return t.tv_sec + t.tv_nsec / 1e9;
}

static uint32_t rotl(uint32_t x, int n) { return (x << n) | (x >> (32 - n)); }

static double hash(double seconds) {
  static uint32_t block[4096];
  uint32_t x = 20260401;
  for (int i = 0; i < 4096; i++) {
    x ^= x << 13;
    x ^= x >> 17;
    x ^= x << 5;
    block[i] = x;
  }
  long rounds = 0;
  double from = now();
  while (now() - from < seconds) {
    uint32_t a = 0x79617272, b = 0x6f776d61, c = 0x726b7765, d = 0x69722121;
    for (uint32_t pass = 0; pass < 64; pass++) {
      for (int i = 0; i < 4096; i += 4) {
        a = rotl(a + block[i], 7) ^ d;
        b = rotl(b + (block[i + 1] ^ a), 11) + c;
        c = rotl(c ^ (block[i + 2] + b), 17) + a;
        d = rotl(d + (block[i + 3] ^ c), 23) ^ b;
      }
      a += pass;
    }
    if ((a ^ b ^ c ^ d) != 494973052u) exit(2);
    rounds++;
  }
  return rounds / (now() - from);
}

static double memory(double seconds, size_t bytes) {
  uint64_t *block = malloc(bytes);
  size_t n = bytes / 8;
  for (size_t i = 0; i < n; i++) block[i] = 1;
  double moved = 0, from = now();
  while (now() - from < seconds) {
    uint64_t sum = 0;
    for (size_t i = 0; i < n; i++) sum += block[i];
    if (sum != n) exit(2);
    moved += bytes;
  }
  return moved / (now() - from) / 1e9;
}

static double scattered(const char *file, double seconds) {
  int f = open(file, O_RDONLY | O_DIRECT);
  if (f < 0) exit(3);
  struct stat s;
  fstat(f, &s);
  long blocks = s.st_size / 4096;
  void *buffer;
  if (posix_memalign(&buffer, 4096, 4096)) exit(4);
  uint64_t x = 88172645463325252ull;
  long done = 0;
  double from = now();
  while (now() - from < seconds) {
    x ^= x << 13;
    x ^= x >> 7;
    x ^= x << 17;
    if (pread(f, buffer, 4096, (off_t)(x % blocks) * 4096) != 4096) exit(5);
    done++;
  }
  return done / (now() - from);
}

// Megabytes a second, end to end and again, a mebibyte at a time; each block of 4 KiB says at both ends which one it is.
static double written(const char *file, double seconds) {
  int f = open(file, O_WRONLY | O_DIRECT);
  if (f < 0) exit(3);
  struct stat s;
  fstat(f, &s);
  size_t size = 1 << 20;
  void *memory;
  if (posix_memalign(&memory, 4096, size)) exit(4);
  uint64_t *buffer = memory, x = 88172645463325252ull;
  for (size_t i = 0; i < size / 8; i++) {
    x ^= x << 13;
    x ^= x >> 7;
    x ^= x << 17;
    buffer[i] = x;
  }
  off_t at = 0;
  double moved = 0, from = now();
  while (now() - from < seconds) {
    if (at + (off_t)size > s.st_size) at = 0;
    for (size_t block = 0; block < size / 4096; block++) {
      uint64_t number = (uint64_t)at / 4096 + block + 1;
      buffer[block * 512] = number;
      buffer[block * 512 + 511] = ~number;
    }
    if (pwrite(f, memory, size, at) != (ssize_t)size) exit(5);
    at += size;
    moved += size;
  }
  return moved / (now() - from) / 1e6;
}

int main(int count, char **words) {
  if (count < 4) return 1;
  double seconds = atof(words[3]);
  if (!strcmp(words[1], "hash")) printf("%.6g\n", hash(seconds));
  else if (!strcmp(words[1], "memory")) printf("%.6g\n", memory(seconds, (size_t)atol(words[2])));
  else if (!strcmp(words[1], "scattered")) printf("%.6g\n", scattered(words[2], seconds));
  else if (!strcmp(words[1], "written")) printf("%.6g\n", written(words[2], seconds));
  else return 1;
  return 0;
}
