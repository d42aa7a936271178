<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/**
 * A file of the workspace while it is written: it gets its name when it is whole. Two workers may come to do the same piece of
 * work, so each writes under a name of its own; which of them is renamed last does not matter, for both hold the same bytes.
 */
final class AtomicFile
{
    private readonly string $unfinished;

    /** @var resource */
    private $file;

    public function __construct(private readonly string $path)
    {
        $this->unfinished = $path.'.'.bin2hex(random_bytes(6)).'.unfinished';
        $this->file = @fopen($this->unfinished, 'wb') ?: throw WorkspaceFailure::writing($path);
    }

    public static function put(string $path, string $content): void
    {
        $file = new self($path);
        $file->write($content);
        $file->finish();
    }

    public function write(string $bytes): void
    {
        if (@fwrite($this->file, $bytes) !== strlen($bytes)) {
            throw WorkspaceFailure::writing($this->path);
        }
    }

    public function finish(): void
    {
        if (! fclose($this->file) || ! @rename($this->unfinished, $this->path)) {
            throw WorkspaceFailure::writing($this->path);
        }
    }

    public function discard(): void
    {
        fclose($this->file);
        @unlink($this->unfinished);
    }
}
