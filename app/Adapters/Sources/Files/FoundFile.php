<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use League\Flysystem\FileAttributes;

/** A file as its place lists it. */
final readonly class FoundFile
{
    /** @param int $at when it was written last, in seconds since 1970 */
    private function __construct(public string $name, public int $bytes, public int $at) {}

    public static function of(FileAttributes $file): self
    {
        return new self(basename($file->path()), $file->fileSize() ?? 0, $file->lastModified() ?? 0);
    }

    public function isAs(self $other): bool
    {
        return $this->bytes === $other->bytes && $this->at === $other->at;
    }
}
