<?php

declare(strict_types=1);

namespace App\Queries\Board;

use App\Models\Dataset;
use Illuminate\Support\Collection;
use NineTally\Core\Row\Side;

/** The datasets of a migration that steps of others look up from: each is a reference, and is tallied only if somebody wants it to be. */
final readonly class LookedUp
{
    /** @param list<string> $names in small letters */
    private function __construct(private array $names) {}

    /** @param Collection<int, Dataset> $datasets of a migration, with their drafts */
    public static function among(Collection $datasets): self
    {
        $names = $datasets->flatMap(
            static fn(Dataset $dataset): array => array_merge(
                ...array_map(
                    static fn(Side $side): array => $dataset->draft?->rules($side)->preparation->references() ?? [],
                    Side::cases(),
                ),
            ),
        );

        return new self(array_values($names->map(static fn(string $name): string => mb_strtolower($name))->all()));
    }

    public function has(Dataset $dataset): bool
    {
        return in_array(mb_strtolower($dataset->name), $this->names, true);
    }
}
