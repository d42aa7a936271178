<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\Spill\WorkspaceFailure;

/** A folder for what a run writes aside, removed when the run is over. */
final readonly class Workspace
{
    private function __construct(public string $path) {}

    public static function make(?string $under = null): self
    {
        $path = sprintf('%s/nine-tally-%s', $under ?? sys_get_temp_dir(), bin2hex(random_bytes(8)));

        return @mkdir($path, 0700, true) ? new self($path) : throw WorkspaceFailure::writing($path);
    }

    public static function at(string $path): self
    {
        return new self($path);
    }

    public function remove(): void
    {
        if (! is_dir($this->path)) {
            return;
        }
        $entries = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator($this->path, \FilesystemIterator::SKIP_DOTS),
            \RecursiveIteratorIterator::CHILD_FIRST,
        );
        /** @var \SplFileInfo $entry */
        foreach ($entries as $entry) {
            $entry->isDir() ? rmdir($entry->getPathname()) : unlink($entry->getPathname());
        }
        rmdir($this->path);
    }
}
