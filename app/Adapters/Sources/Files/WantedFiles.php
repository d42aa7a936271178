<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\SourceProblem;

/** Which files of a place are asked for: by a name in which * stands for anything, and a word for how many of those. */
final readonly class WantedFiles
{
    /** Seconds between two files that came together. */
    private const PAUSE = 900;

    private function __construct(public FileChoice $choice, public string $pattern) {}

    /** @throws SourceProblem when it is no name */
    public static function of(string $what): self
    {
        foreach (FileChoice::cases() as $choice) {
            if ($choice !== FileChoice::Newest && str_starts_with($what, "{$choice->value} ")) {
                return self::called($choice, substr($what, strlen($choice->value) + 1));
            }
        }

        return self::called(FileChoice::Newest, $what);
    }

    private static function called(FileChoice $choice, string $pattern): self
    {
        $pattern = trim($pattern);
        if (str_contains($pattern, '/')) {
            throw new SourceProblem('A name of a file has no / in it');
        }

        return new self($choice, $pattern === '' ? '*' : $pattern);
    }

    public function fits(string $name): bool
    {
        return fnmatch($this->pattern, $name, FNM_PERIOD);
    }

    /**
     * @param  non-empty-list<FoundFile>  $files  those that fit, the newest first
     * @return non-empty-list<FoundFile> those that are taken, the oldest first; of a manifest the manifest itself
     */
    public function among(array $files): array
    {
        $taken = [$files[0]];
        foreach (array_slice($files, 1) as $file) {
            $isTaken = match ($this->choice) {
                FileChoice::Newest, FileChoice::Manifest => false,
                FileChoice::All, FileChoice::Since => true,
                FileChoice::Together => $taken[count($taken) - 1]->at - $file->at <= self::PAUSE,
            };
            if (! $isTaken) {
                break;
            }
            $taken[] = $file;
        }

        return array_reverse($taken);
    }
}
