<?php

declare(strict_types=1);

namespace App\Questions;

use App\Models\Delivery;
use NineTally\Core\Profile\Combinations;

/** Which combinations of some columns a delivery has, and how often: which rows repeat if only these columns count. */
final readonly class ColumnCombinations implements Question
{
    private const RECORDS_BETWEEN_REPORTS = 5_000;

    /** @param non-empty-list<string> $columns as delivered */
    public function __construct(private int $delivery, private array $columns) {}

    public function kind(): string
    {
        return 'how-columns-combine';
    }

    public function about(): array
    {
        // A delivery never changes, so its number says all of it.
        return [$this->delivery, $this->columns];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $stack = $material->reader->stack(Delivery::query()->findOrFail($this->delivery));
        $places = array_map(static fn(string $name): int => (int) array_search($name, $stack->columns, true), $this->columns);

        return $material->withFolder(static function (string $folder) use ($stack, $places, $onProgress): array {
            $combinations = new Combinations($folder, $places);
            $bytes = $seen = 0;
            foreach ($stack->records(static function (int $read) use (&$bytes): void {
                $bytes = $read;
            }) as $record) {
                if (is_array($record)) {
                    $combinations->see($record);
                }
                ++$seen % self::RECORDS_BETWEEN_REPORTS === 0 && $onProgress($bytes, $stack->bytes());
            }

            return $combinations->count();
        });
    }
}
