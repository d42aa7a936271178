<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use App\Problems\DamagedBytes;
use App\Problems\NoRoom;
use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Filesystem\LocalFilesystemAdapter;

/** Content kept byte for byte under its SHA-256. Written aside, synced, renamed: a name never stands for half a content. */
final readonly class BlobStore
{
    public function __construct(private Filesystem $disk, private string $workFolder) {}

    /** Takes over a finished file of the work folder. */
    public function keepFile(string $path): string
    {
        $digest = (string) hash_file('sha256', $path);
        $this->locked(LOCK_SH, function () use ($path, $digest): void {
            $stored = $this->path($digest);
            if (! is_file($stored)) {
                $this->disk->makeDirectory(dirname($this->name($digest)));
                $this->sync($path);
                rename($path, $stored);
                chmod($stored, 0400);
            } else {
                unlink($path);
            }
        });

        return $digest;
    }

    /**
     * Removes a content that nobody needs any more. Whoever keeps the same bytes has said so before: of the two, one waits for the other.
     *
     * @param  callable(string): bool  $isNeeded
     */
    public function forget(string $digest, callable $isNeeded): void
    {
        $this->locked(LOCK_EX, function () use ($digest, $isNeeded): void {
            if (is_file($this->path($digest)) && ! $isNeeded($digest)) {
                unlink($this->path($digest));
            }
        });
    }

    public function has(string $digest): bool
    {
        return is_file($this->path($digest));
    }

    public function keep(string $content): string
    {
        $path = @tempnam($this->workFolder, 'blob');
        if ($path === false || @file_put_contents($path, $content) !== strlen($content)) {
            throw NoRoom::writing();
        }

        return $this->keepFile($path);
    }

    /** Whether the bytes are there, and are what they were. */
    public function isWhole(string $digest): bool
    {
        return @hash_file('sha256', $this->path($digest)) === $digest;
    }

    /**
     * @param  string  $name  the file as the person knows it
     *
     * @throws DamagedBytes
     */
    public function mustBeWhole(string $digest, string $name): void
    {
        if (! $this->isWhole($digest)) {
            throw DamagedBytes::of($name, $digest);
        }
    }

    /** Where the content can be read from. */
    public function path(string $digest): string
    {
        return $this->disk instanceof LocalFilesystemAdapter
            ? $this->disk->path($this->name($digest))
            : throw new \LogicException('Deliveries are read in place, so their disk must be local.');
    }

    private function name(string $digest): string
    {
        return substr($digest, 0, 2).'/'.$digest;
    }

    /**
     * @param  LOCK_SH|LOCK_EX  $how
     * @param  callable(): void  $work
     */
    private function locked(int $how, callable $work): void
    {
        $lock = @fopen("{$this->workFolder}/blobs.lock", 'cb');
        if ($lock === false) {
            throw NoRoom::writing();
        }
        flock($lock, $how);
        try {
            $work();
        } finally {
            fclose($lock);
        }
    }

    private function sync(string $path): void
    {
        $file = fopen($path, 'rb+');
        if ($file !== false) {
            fsync($file);
            fclose($file);
        }
    }
}
