<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\PartsArchive;
use App\Adapters\Sources\RowSource;
use App\Adapters\Sources\Snapshot;
use App\Adapters\Sources\SourceProblem;
use App\Problems\NoRoom;
use League\Flysystem\FileAttributes;
use League\Flysystem\FilesystemException;
use League\Flysystem\FilesystemReader;
use phpseclib3\Exception\ConnectionClosedException;
use phpseclib3\Exception\TimeoutException;

/**
 * Files that others put somewhere. A file counts as arrived when it has rested for a while, or when its marker is there: a file of its name
 * with something behind it. What is taken is a copy; the file stays where it is.
 */
final readonly class FileSource implements RowSource
{
    private const MOST_FILES = 500;

    private const MOST_BYTES_OF_A_LIST = 1_000_000;

    /**
     * @param  string  $marker  behind the name of a file that says that it is whole; '' for none: then it has to rest
     * @param  int  $rest  seconds
     * @param  array<string, int>  $delivered  by name: when it was asked for, of files that deliveries have had
     */
    public function __construct(
        private string $name,
        private FileStore $store,
        private string $marker,
        private int $rest,
        private int $mostBytes,
        private array $delivered = [],
    ) {}

    /** @param array<string, int> $delivered by name: when it was asked for, of files that deliveries have had */
    public function knowing(array $delivered): self
    {
        return new self($this->name, $this->store, $this->marker, $this->rest, $this->mostBytes, $delivered);
    }

    public function greeting(): string
    {
        $files = $this->asked(fn(FilesystemReader $place): array => $this->files($place, WantedFiles::of('*')));

        return match (count($files)) {
            0 => 'it has no file yet',
            1 => "it has one file, {$files[0]->name}",
            default => 'it has '.number_format(count($files))." files, of which {$files[0]->name} is the newest",
        };
    }

    public function snapshot(string $what, string $path, \Closure $onProgress): ?Snapshot
    {
        try {
            return $this->asked(fn(FilesystemReader $place): ?Snapshot => $this->taken($place, WantedFiles::of($what), $path, $onProgress));
        } catch (SourceProblem $problem) {
            throw $problem->asUnreadable($this->name);
        }
    }

    /**
     * @template Answer
     *
     * @param  \Closure(FilesystemReader): Answer  $question
     * @return Answer
     */
    private function asked(\Closure $question): mixed
    {
        try {
            return $question($this->store->enter());
        } catch (FilesystemException|ConnectionClosedException|TimeoutException $thrown) {
            throw $this->store->problem($thrown);
        }
    }

    /** @param \Closure(int, int): bool $onProgress */
    private function taken(FilesystemReader $place, WantedFiles $wanted, string $path, \Closure $onProgress): ?Snapshot
    {
        $files = $this->files($place, $wanted);
        if ($files === []) {
            throw new SourceProblem("There is no file called {$wanted->pattern} in it yet. Check the name, or wait until it is there");
        }
        if ($wanted->choice === FileChoice::Since) {
            $files = array_values(array_filter($files, fn(FoundFile $file): bool => $file->at > ($this->delivered[$file->name] ?? -1)));
            if ($files === []) {
                throw new NothingNew("No file called {$wanted->pattern} has come since the last delivery");
            }
        }
        $taken = $wanted->among($files);
        foreach ($taken as $file) {
            $this->mustHaveArrived($place, $file);
        }
        $digests = [];
        if ($wanted->choice === FileChoice::Manifest) {
            if ($taken[0]->bytes > self::MOST_BYTES_OF_A_LIST) {
                throw new SourceProblem("{$taken[0]->name} is too large for a list of files");
            }
            $digests = Manifest::read($taken[0]->name, $place->read($taken[0]->name))->digests;
            $taken = array_map(fn(string $name): FoundFile => $this->listed($place, $name, $taken[0]->name), array_keys($digests));
        }
        if (count($taken) > self::MOST_FILES) {
            throw new SourceProblem('More than '.self::MOST_FILES.' files are called so. Name fewer');
        }
        if (array_sum(array_map(static fn(FoundFile $file): int => $file->bytes, $taken)) > $this->mostBytes) {
            throw new SourceProblem(sprintf('They are more than %s bytes', number_format($this->mostBytes)));
        }

        return $this->together($place, $taken, $digests, $path, $onProgress);
    }

    /** @return list<FoundFile> the newest first; of equals in the order of their names */
    private function files(FilesystemReader $place, WantedFiles $wanted): array
    {
        $files = [];
        foreach ($place->listContents('') as $entry) {
            $isMarker = $this->marker !== '' && str_ends_with($entry->path(), $this->marker);
            if ($entry instanceof FileAttributes && ! $isMarker && $wanted->fits(basename($entry->path()))) {
                $files[] = FoundFile::of($entry);
            }
        }
        usort($files, static fn(FoundFile $one, FoundFile $other): int => $other->at <=> $one->at ?: strcmp($one->name, $other->name));

        return $files;
    }

    private function listed(FilesystemReader $place, string $name, string $manifest): FoundFile
    {
        return $place->fileExists($name)
            ? $this->asItIs($place, $name)
            : throw new SourceProblem("{$manifest} lists {$name}, which is not there. Wait until it is, or have the list put right");
    }

    private function asItIs(FilesystemReader $place, string $name): FoundFile
    {
        return FoundFile::of(new FileAttributes($name, $place->fileSize($name), lastModified: $place->lastModified($name)));
    }

    private function mustHaveArrived(FilesystemReader $place, FoundFile $file): void
    {
        if ($this->marker !== '' && ! $place->fileExists($file->name.$this->marker)) {
            throw new SourceProblem("{$file->name} is not whole yet: its marker {$file->name}{$this->marker} is not there");
        }
        // The clock of another machine may be ahead of ours.
        $rested = max(0, time() - $file->at);
        if ($this->marker === '' && $rested < $this->rest) {
            throw new SourceProblem(
                "{$file->name} may still grow: it was written {$rested} seconds ago, and has to rest for {$this->rest}",
            );
        }
    }

    /**
     * @param  non-empty-list<FoundFile>  $files
     * @param  array<string, string|null>  $digests  by name
     * @param  \Closure(int, int): bool  $onProgress
     * @return Snapshot|null null when it was ended
     */
    private function together(FilesystemReader $place, array $files, array $digests, string $path, \Closure $onProgress): ?Snapshot
    {
        $copies = [];
        $bytes = 0;
        try {
            foreach ($files as $number => $file) {
                $copies[$file->name] = "{$path}.file{$number}";
                $isCopied = $this->copied(
                    $place,
                    $file,
                    $copies[$file->name],
                    static fn(int $ofFile): bool => $onProgress(0, $bytes + $ofFile),
                );
                if (! $isCopied) {
                    return null;
                }
                $digest = $digests[$file->name] ?? null;
                if ($digest !== null && ! hash_equals($digest, (string) hash_file('sha256', $copies[$file->name]))) {
                    throw new SourceProblem("{$file->name} is not what its list says: the digests differ. Have it sent again");
                }
                $bytes += $file->bytes;
            }
            count($copies) === 1
                ? rename(current($copies), $path) || throw NoRoom::writing()
                : PartsArchive::write($copies, $path);
        } finally {
            foreach ($copies as $copy) {
                @unlink($copy);
            }
        }
        clearstatcache(true, $path);

        return new Snapshot((int) filesize($path), count($files) === 1 ? $files[0]->name : null);
    }

    /** @param \Closure(int): bool $goesOn told the bytes of it so far; false ends it */
    private function copied(FilesystemReader $place, FoundFile $file, string $path, \Closure $goesOn): bool
    {
        $copy = @fopen($path, 'wb') ?: throw NoRoom::writing();
        $bytes = 0;
        $goes = $goesOn($bytes);
        foreach ($goes ? $this->store->blocks($place, $file->name) : [] as $block) {
            if (@fwrite($copy, $block) !== strlen($block)) {
                throw NoRoom::writing();
            }
            $bytes += strlen($block);
            if (! ($goes = $goesOn($bytes))) {
                break;
            }
        }
        fclose($copy);
        if ($goes && ($bytes !== $file->bytes || ! $this->asItIs($place, $file->name)->isAs($file))) {
            throw new SourceProblem("{$file->name} was written while it was read, or broke off. Try again when it rests");
        }

        return $goes;
    }
}
