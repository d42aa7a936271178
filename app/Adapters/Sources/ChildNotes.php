<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** What a child process says to its parent: a line of JSON for each thing, in a file beside what it writes. */
final readonly class ChildNotes
{
    public function __construct(private string $path) {}

    public static function beside(string $path): self
    {
        $notes = new self("{$path}.notes");
        $notes->forget();

        return $notes;
    }

    public function note(string $name, string $value): void
    {
        @file_put_contents($this->path, json_encode([$name => $value], JSON_INVALID_UTF8_SUBSTITUTE)."\n", FILE_APPEND);
    }

    public function said(string $name): ?string
    {
        $said = null;
        foreach (@file($this->path) ?: [] as $line) {
            $noted = json_decode($line, true);
            $value = is_array($noted) ? $noted[$name] ?? null : null;
            $said = is_string($value) ? $value : $said;
        }

        return $said;
    }

    public function forget(): void
    {
        @unlink($this->path);
    }
}
