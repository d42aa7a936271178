<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\SourceProblem;
use League\Flysystem\Filesystem;
use League\Flysystem\FilesystemReader;
use League\Flysystem\Local\LocalFilesystemAdapter;

/** A folder of this machine, below the one that it keeps for this. */
final readonly class LocalFolder implements FileStore
{
    use StreamedBlocks;

    /** @param string $within the folder, as it is called below that one; '' for itself */
    public function __construct(private string $below, private string $within) {}

    public function enter(): FilesystemReader
    {
        $root = realpath($this->below);
        $folder = realpath("{$this->below}/{$this->within}");
        if ($root === false || $folder === false || ! is_dir($folder) || ! str_starts_with("{$folder}/", "{$root}/")) {
            throw new SourceProblem("There is no folder {$this->within} there, or the account that serves may not read it.");
        }
        // A link leads elsewhere, and is no file of it.
        return new Filesystem(new LocalFilesystemAdapter($folder, linkHandling: LocalFilesystemAdapter::SKIP_LINKS));
    }

    public function problem(\Throwable $thrown): SourceProblem
    {
        return new SourceProblem('The account that serves may not read all of it. Ask whoever runs the machine', previous: $thrown);
    }
}
