<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/** A file of the workspace that is read to its end. A write that fails is an error, never a short file. */
final readonly class WorkspaceReader
{
    /** @param resource $handle */
    private function __construct(private string $path, private mixed $handle) {}

    public static function forReading(string $path): self
    {
        $handle = @fopen($path, 'rb');

        return $handle === false ? throw WorkspaceFailure::reading($path) : new self($path, $handle);
    }

    public static function append(string $path, string $bytes): void
    {
        if (@file_put_contents($path, $bytes, FILE_APPEND) !== strlen($bytes)) {
            throw WorkspaceFailure::writing($path);
        }
    }

    /** @return string exactly $bytes bytes, from a place in the file */
    public function readAt(int $offset, int $bytes): string
    {
        fseek($this->handle, $offset);
        $read = $this->read($bytes);

        return strlen($read) === $bytes ? $read : throw WorkspaceFailure::reading($this->path);
    }

    /** @return string exactly $bytes bytes, or '' at the end of the file */
    public function read(int $bytes): string
    {
        $read = '';
        while (($rest = $bytes - strlen($read)) > 0) {
            $piece = fread($this->handle, $rest);
            if ($piece === false || $piece === '') {
                return $read === '' ? '' : throw WorkspaceFailure::reading($this->path);
            }
            $read .= $piece;
        }

        return $read;
    }

    /** @return string as many bytes as are left, and no more than so many; '' at the end of the file */
    public function readUpTo(int $bytes): string
    {
        $read = fread($this->handle, max(1, $bytes));

        return $read === false ? throw WorkspaceFailure::reading($this->path) : $read;
    }

    public function __destruct()
    {
        fclose($this->handle);
    }
}
