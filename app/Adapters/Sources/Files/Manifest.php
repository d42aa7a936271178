<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\SourceProblem;

/** The files of one delivery, as a file lists them: a name a line, or as sha256sum writes it, the digest, two blanks and the name. */
final readonly class Manifest
{
    /** @param non-empty-array<string, string|null> $digests by name; null where none is said */
    private function __construct(public array $digests) {}

    /**
     * @throws SourceProblem when it lists nothing, or something that is no name
     */
    public static function read(string $name, string $said): self
    {
        $digests = [];
        foreach (preg_split('/\R/', $said) ?: [] as $number => $line) {
            if (trim($line) === '') {
                continue;
            }
            $isDigest = preg_match('/^([0-9a-f]{64}) [ *](.+)$/i', $line, $found) === 1;
            $file = trim($isDigest ? $found[2] : $line);
            if (str_contains($file, '/') || isset($digests[$file])) {
                throw new SourceProblem(sprintf('Line %d of %s names no file of this folder, or one twice: %s', $number + 1, $name, $file));
            }
            $digests[$file] = $isDigest ? strtolower($found[1]) : null;
        }

        return $digests === [] ? throw new SourceProblem("{$name} lists no file") : new self($digests);
    }
}
