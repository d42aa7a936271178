<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Problems\NoRoom;

/**
 * Files that others put into a folder of this machine. A file counts as arrived when it has rested for a while, or when its marker is
 * there: a file of its name with something behind it. What is taken is a copy; the file stays where it is.
 */
final readonly class FolderSource implements RowSource
{
    /** How all files that fit are asked for, as parts, and not the newest one. */
    public const ALL = 'all ';

    private const MOST_FILES = 500;

    /**
     * @param  string  $folder  below which this machine keeps files for it
     * @param  string  $within  the folder of this source
     * @param  string  $marker  behind the name of a file that says that it is whole; '' for none: then it has to rest
     * @param  int  $rest  seconds
     */
    public function __construct(
        private string $name,
        private string $folder,
        private string $within,
        private string $marker,
        private int $rest,
        private int $mostBytes,
    ) {}

    public function greeting(): string
    {
        $files = $this->files('*');

        return match (count($files)) {
            0 => 'it has no file yet',
            1 => 'it has one file, '.basename($files[0]),
            default => 'it has '.count($files).' files, of which '.basename($files[0]).' is the newest',
        };
    }

    public function snapshot(string $what, string $path, \Closure $onProgress): ?int
    {
        try {
            $isAll = str_starts_with($what, self::ALL);
            $pattern = trim($isAll ? substr($what, strlen(self::ALL)) : $what);
            $files = $this->files($pattern === '' ? '*' : $pattern);
            if ($files === []) {
                throw new SourceProblem("There is no file called {$pattern} in it yet. Check the name, or wait until it is there");
            }
            $taken = $isAll ? array_reverse($files) : [$files[0]];
            if (count($taken) > self::MOST_FILES) {
                throw new SourceProblem('More than '.self::MOST_FILES.' files are called so. Name fewer');
            }
            $bytes = array_sum(array_map(static fn(string $file): int => (int) filesize($file), $taken));
            if ($bytes > $this->mostBytes) {
                throw new SourceProblem(sprintf('They are more than %s bytes', number_format($this->mostBytes)));
            }
            foreach ($taken as $file) {
                $this->mustHaveArrived($file);
            }

            if (! $onProgress(0, 0)) {
                return null;
            }
            $this->copy($taken, $path);

            return $onProgress(0, (int) filesize($path)) ? (int) filesize($path) : null;
        } catch (SourceProblem $problem) {
            throw $problem->asUnreadable($this->name);
        }
    }

    /** @return list<string> paths, the newest first; of equals in the order of their names */
    private function files(string $pattern): array
    {
        $root = realpath($this->folder);
        $folder = realpath("{$this->folder}/{$this->within}");
        if ($root === false || $folder === false || ! is_dir($folder) || ! str_starts_with("{$folder}/", "{$root}/")) {
            throw new SourceProblem("There is no folder {$this->within} there, or the account that serves may not read it.");
        }
        if (str_contains($pattern, '/')) {
            throw new SourceProblem('A name of a file has no / in it');
        }
        $files = array_filter(
            glob("{$folder}/{$pattern}") ?: [],
            fn(string $file): bool => is_file($file) && ! is_link($file) && ($this->marker === '' || ! str_ends_with($file, $this->marker)),
        );
        usort($files, static fn(string $one, string $other): int => filemtime($other) <=> filemtime($one) ?: strcmp($one, $other));

        return $files;
    }

    private function mustHaveArrived(string $file): void
    {
        clearstatcache(true, $file);
        $name = basename($file);
        if ($this->marker !== '' && ! is_file($file.$this->marker)) {
            throw new SourceProblem("{$name} is not whole yet: its marker {$name}{$this->marker} is not there");
        }
        $rested = time() - (int) filemtime($file);
        if ($this->marker === '' && $rested < $this->rest) {
            throw new SourceProblem("{$name} may still grow: it was written {$rested} seconds ago, and has to rest for {$this->rest}");
        }
    }

    /** @param non-empty-list<string> $files */
    private function copy(array $files, string $path): void
    {
        if (count($files) === 1) {
            $before = [filesize($files[0]), filemtime($files[0])];
            if (! @copy($files[0], $path)) {
                throw NoRoom::writing();
            }
            clearstatcache(true);
            if ($before !== [filesize($files[0]), filemtime($files[0])] || filesize($path) !== $before[0]) {
                @unlink($path);
                throw new SourceProblem(basename($files[0]).' was written while it was read. Try again when it rests');
            }

            return;
        }
        PartsArchive::write(array_combine(array_map(basename(...), $files), $files), $path);
        clearstatcache(true, $path);
    }
}
