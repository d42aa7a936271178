<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

use NineTally\Core\Profile\ColumnConstraint;
use NineTally\Core\Profile\Combinations;
use NineTally\Core\Profile\ConstraintViolations;
use NineTally\Core\Value\Reading;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ColumnConstraintTest extends TestCase
{
    use TemporaryFiles;

    /**
     * @param  array{required?: bool, mostCharacters?: int, mostBytes?: int, allowed?: list<string>, digits?: int, decimals?: int}  $demand
     * @param  list<string>  $unmet
     */
    #[DataProvider('values')]
    public function test_says_which_part_of_the_demand_a_value_does_not_meet(array $demand, string $value, array $unmet): void
    {
        self::assertSame($unmet, ColumnConstraint::of($demand, new Reading(blankTokens: ['NULL']))->unmetBy($value));
    }

    /** @return iterable<string, array{array<string, mixed>, string, list<string>}> */
    public static function values(): iterable
    {
        yield 'just long enough' => [['mostCharacters' => 3, 'mostBytes' => 4], 'Bøs', []];
        yield 'characters fit, bytes do not' => [['mostCharacters' => 3, 'mostBytes' => 3], 'Bøs', ['mostBytes']];
        yield 'one character too many' => [['mostCharacters' => 3], 'Bøss', ['mostCharacters']];
        yield 'blank where it is required' => [['required' => true, 'mostCharacters' => 2], '', ['required']];
        yield 'a declared token is blank too' => [['required' => true, 'mostCharacters' => 2], 'NULL', ['required']];
        yield 'blank where it may be' => [['allowed' => ['A']], '', []];
        yield 'not allowed' => [['allowed' => ['A', 'S']], 'a', ['allowed']];
        yield 'NUMERIC(5, 2) at its end' => [['digits' => 5, 'decimals' => 2], '-999.99', []];
        yield 'NUMERIC(5, 2) over its end' => [['digits' => 5, 'decimals' => 2], '1000', ['digits']];
        yield 'one decimal too many' => [['digits' => 5, 'decimals' => 2], '1.001', ['decimals']];
        yield 'zeros at the end are no decimals' => [['digits' => 5, 'decimals' => 2], '1.5000', []];
        yield 'zero fits everywhere' => [['digits' => 2, 'decimals' => 2], '0', []];
        yield 'no number' => [['digits' => 5], 'asked twice', ['number']];
    }

    public function test_misfits_are_counted_by_column_with_the_first_of_them(): void
    {
        $misfits = new ConstraintViolations([1 => ColumnConstraint::of(['mostCharacters' => 2])]);
        foreach (range(1, 30) as $packedPlace) {
            $misfits->see($packedPlace, ['anything', $packedPlace % 2 === 0 ? 'KB' : 'KBX']);
        }

        $found = $misfits->found();
        self::assertSame([1], array_keys($found));
        self::assertSame(15, $found[1]['mostCharacters']['count']);
        self::assertSame(['packedPlace' => 1, 'value' => 'KBX'], $found[1]['mostCharacters']['examples'][0]);
    }

    public function test_combinations_are_counted_with_the_rows_that_share_them(): void
    {
        $combinations = new Combinations($this->folder(), [0, 2]);
        foreach ([['KB', 'x', '1'], ['LM', 'y', '1'], ['KB', 'z', '1'], ['K', '', 'B1'], ['KB', 'x', '1']] as $cells) {
            $combinations->see($cells);
        }

        $counted = $combinations->count();
        self::assertSame([5, 3, 1, 3], [$counted['rows'], $counted['distinct'], $counted['repeating'], $counted['repeatingRows']]);
        self::assertSame(
            [['cells' => ['KB', '1'], 'count' => 3], ['cells' => ['K', 'B1'], 'count' => 1], ['cells' => ['LM', '1'], 'count' => 1]],
            $counted['most'],
        );
    }
}
