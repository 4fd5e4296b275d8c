import { describe, expect, it } from 'vitest';
