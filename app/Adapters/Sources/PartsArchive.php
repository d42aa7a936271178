<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Problems\NoRoom;

/** Several files that came together, as one archive, which becomes parts of a delivery. */
final readonly class PartsArchive
{
    /**
     * @param  iterable<string, string>  $files  paths by the names that they have within it
     *
     * @throws NoRoom when it cannot be written; nothing of it is left then
     */
    public static function write(iterable $files, string $path): void
    {
        $made = "{$path}.zip";
        $archive = new \ZipArchive;
        $isMade = $archive->open($made, \ZipArchive::CREATE | \ZipArchive::OVERWRITE) === true;
        foreach ($files as $name => $file) {
            $isMade = $isMade && $archive->addFile($file, $name);
        }
        if (! $isMade || ! $archive->close() || ! rename($made, $path)) {
            @unlink($made);
            throw NoRoom::writing();
        }
    }
}
