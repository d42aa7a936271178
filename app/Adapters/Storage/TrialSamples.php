<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use NineTally\Core\Matching\Spill\AtomicFile;

/**
 * Rows of some keys on both sides, kept to try rules on.
 *
 * @phpstan-type Sample array{source: array{columns: list<string>, rows: list<array{int, list<string>}>},
 *     target: array{columns: list<string>, rows: list<array{int, list<string>}>}}
 */
final readonly class TrialSamples
{
    public function __construct(private string $folder) {}

    /**
     * @param array<string, array{columns: list<string>, rows: list<array{int, list<string>}>}> $drawn by side: packed place and cells of
     *     each row
     */
    public function keep(string $digest, array $drawn): void
    {
        @mkdir($this->folder, 0700, true);
        AtomicFile::put($this->path($digest), serialize($drawn));
    }

    /** @return Sample|null */
    public function held(string $digest): ?array
    {
        $bytes = @file_get_contents($this->path($digest));
        if ($bytes === false) {
            return null;
        }
        /** @var Sample $sample */
        $sample = unserialize($bytes, ['allowed_classes' => false]);

        return $sample;
    }

    private function path(string $digest): string
    {
        return "{$this->folder}/trial-{$digest}";
    }
}
