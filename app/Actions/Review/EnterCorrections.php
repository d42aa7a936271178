<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\CorrectionSet;
use App\Models\Tally;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;

/** Enters the lines of corrections as a set that never changes. */
final readonly class EnterCorrections
{
    private const AT_ONCE = 1_000;

    public function __construct(private Connection $database) {}

    /**
     * @param  list<int>  $rulings  acts that they are made of
     * @param  int  $count  lines that there must be
     * @param  iterable<array<string, string|int|null>>  $lines  by the columns of their table, the identity in hexadecimal digits
     * @param  string  $whyNone  said where there is no line
     *
     * @throws Conflict where there is none
     */
    public function __invoke(Tally $tally, array $rulings, int $count, iterable $lines, User $person, string $whyNone): CorrectionSet
    {
        if ($count === 0) {
            throw Conflict::because('nothing-to-correct', $whyNone);
        }
        $set = CorrectionSet::query()->create([
            'dataset_id' => $tally->dataset_id,
            'tally_id' => $tally->id,
            'number' => CorrectionSet::query()->where('dataset_id', $tally->dataset_id)->count() + 1,
            'lines' => $count,
            'rulings' => $rulings,
            'user_id' => $person->id,
        ]);
        $number = 0;
        $some = [];
        foreach ($lines as $line) {
            $some[] = ['set_id' => $set->id, 'number' => ++$number, ...$line];
            if (count($some) === self::AT_ONCE) {
                $this->enter($some);
                $some = [];
            }
        }
        $this->enter($some);
        if ($number !== $count) {
            throw new \LogicException("{$count} corrections were to be made, and {$number} were.");
        }

        return $set;
    }

    /** @param list<array<string, string|int|null>> $lines */
    private function enter(array $lines): void
    {
        // Bytes go as hexadecimal digits.
        $rows = array_map(
            fn(array $line): array => ['identity' => $this->database->raw("decode('{$line['identity']}', 'hex')")] + $line,
            $lines,
        );
        $rows === [] || $this->database->table('correction_lines')->insert($rows);
    }
}
