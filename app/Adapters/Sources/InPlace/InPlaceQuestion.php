<?php

declare(strict_types=1);

namespace App\Adapters\Sources\InPlace;

use App\Adapters\Sources\SourceProblem;
use NineTally\Core\Intake\UnreadableFile;

/** Both databases of a dataset asked which groups of rows they have alike. */
final readonly class InPlaceQuestion
{
    /** Rows of a group: so few that one that differs draws few others with it, and so many that groups are far fewer than rows. */
    private const ROWS_OF_GROUP = 32;

    private const MOST_GROUPS = 1_000_000;

    /**
     * @param  array{source: AsksInPlace, target: AsksInPlace}  $databases
     * @param  array{source: string, target: string}  $queries  with their values
     * @param  array{source: non-empty-list<string>, target: non-empty-list<string>}  $keys
     * @param  array{source: list<string>, target: list<string>}  $columns  that are compared
     */
    public function __construct(private array $databases, private array $queries, private array $keys, private array $columns) {}

    /**
     * @param  string  $path  beside which it is written down
     *
     * @throws SourceProblem
     * @throws UnreadableFile
     */
    public function ask(string $path, int $groups): DifferingGroups
    {
        $paths = ['source' => "{$path}.source", 'target' => "{$path}.target", 'repeats' => "{$path}.repeats"];
        try {
            foreach (['source', 'target'] as $side) {
                $statement = $this->dialect($side)->groups($this->queries[$side], $this->key($side, $groups));
                $this->databases[$side]->snapshot($statement, $paths[$side], static fn(): bool => true);
            }

            return DifferingGroups::of(
                new GroupStream($paths['source']),
                new GroupStream($paths['target']),
                $this->repeated($groups, $paths['repeats']),
            );
        } finally {
            array_map(static fn(string $written): bool => @unlink($written), $paths);
        }
    }

    /** As many as suit the rows of the source. */
    public function groups(string $path): int
    {
        try {
            $this->databases['source']->snapshot(
                "SELECT count(*) AS row_count FROM ({$this->queries['source']}\n) AS asked",
                $path,
                static fn(): bool => true,
            );
            /** @var array{row_count: string} $told */
            $told = json_decode((string) file_get_contents($path), true, 2, JSON_THROW_ON_ERROR);

            return max(1, min(self::MOST_GROUPS, intdiv((int) $told['row_count'], self::ROWS_OF_GROUP)));
        } finally {
            @unlink($path);
        }
    }

    /** @param non-empty-list<int> $numbers */
    public function rows(string $side, int $groups, array $numbers): string
    {
        $side = $side === 'source' ? 'source' : 'target';

        return $this->dialect($side)->rows($this->queries[$side], $this->key($side, $groups), $numbers);
    }

    /**
     * Equal groups have equal keys, so one side is asked for keys that stand more than once.
     *
     * @return array<int, true>
     */
    private function repeated(int $groups, string $path): array
    {
        try {
            $statement = $this->dialect('source')->repeats($this->queries['source'], $this->key('source', $groups));
            $this->databases['source']->snapshot($statement, $path, static fn(): bool => true);
        } catch (UnreadableFile $problem) {
            // A question without an answer is one that no row answers.
            return str_contains($problem->getMessage(), 'it gives no row') ? [] : throw $problem;
        }
        $repeated = [];
        foreach (file($path, FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            /** @var array{bucket: string} $told */
            $told = json_decode($line, true, 2, JSON_THROW_ON_ERROR);
            $repeated[(int) $told['bucket']] = true;
        }

        return $repeated;
    }

    /** @param 'source'|'target' $side */
    private function dialect(string $side): Dialect
    {
        $dialects = [$this->databases['source']->dialect(), $this->databases['target']->dialect()];

        return $dialects === [Dialect::Postgresql, Dialect::Postgresql]
            ? Dialect::PostgresqlAlone
            : $this->databases[$side]->dialect();
    }

    /** @param 'source'|'target' $side */
    private function key(string $side, int $groups): GroupedKey
    {
        return new GroupedKey($this->keys[$side], $this->columns[$side], $groups);
    }
}
