<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use League\Flysystem\FilesystemReader;

/** Blocks of a file that comes as a stream. */
trait StreamedBlocks
{
    /** @return \Generator<int, string> */
    public function blocks(FilesystemReader $place, string $name): \Generator
    {
        $stream = $place->readStream($name);
        try {
            while (! feof($stream)) {
                yield (string) fread($stream, 1_048_576);
            }
        } finally {
            fclose($stream);
        }
    }
}
