<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use Brick\Math\BigDecimal;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\ColumnDecision;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Value\DeclaredRounding;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use NineTally\Core\Value\Tolerance;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** How two cells are compared under what a plan declares. */
final class DeclaredRulesTest extends TestCase
{
    use ComparesCells;

    #[DataProvider('readings')]
    public function test_values_are_read_as_each_side_declares(
        Kind $kind,
        string $source,
        string $target,
        SideRules $sourceRules,
        SideRules $targetRules,
        string $expected,
    ): void {
        $column = new ColumnComparison(
            ColumnPair::between('a', 'b', $kind),
            $sourceRules->reading('a', $kind),
            $targetRules->reading('b', $kind),
            new CauseCatalogue,
        );
        $judgement = $column->classify($source, $target);

        self::assertSame(
            $expected,
            trim(
                $judgement->class->value.
                    ' '.
                    ($judgement->cause->id ??
                        ($judgement->class === CellClass::Identical
                            ? ''
                            : $column->resolve($source, $target, '', new ColumnDecision([]))->id)),
            ),
        );
    }

    /** @return iterable<string, array{Kind, string, string, SideRules, SideRules, string}> */
    public static function readings(): iterable
    {
        $plain = new SideRules;
        $dayFirst = new SideRules(['dateForms' => ['dd/MM/yyyy']]);
        $monthFirst = new SideRules(['dateForms' => ['MM/dd/yyyy']]);
        $twoDigits = new SideRules(['dateForms' => ['dd.MM.yy'], 'twoDigitYearsFrom' => 1950]);
        $comma = new SideRules(['decimalMark' => ',', 'groupMark' => '.']);
        $grouped = new SideRules(['groupMark' => ',']);
        $tokens = new SideRules(['blankTokens' => ['NULL', 'N/A']]);
        $london = new SideRules(['zone' => 'Europe/London']);
        yield 'equal bytes are two days under two forms' => [
            Kind::Date,
            '03/04/2024',
            '03/04/2024',
            $dayFirst,
            $monthFirst,
            'changed day-month',
        ];
        yield 'other bytes are one day under two forms' => [
            Kind::Date,
            '03/04/2024',
            '04/03/2024',
            $dayFirst,
            $monthFirst,
            'forgiven date-form',
        ];
        yield 'equal bytes that are one day under both' => [Kind::Date, '04/04/2024', '04/04/2024', $dayFirst, $monthFirst, 'identical'];
        yield 'declared two-digit years' => [Kind::Date, '1965-01-14', '14.01.65', $plain, $twoDigits, 'forgiven date-form'];
        yield 'a form that is not declared is not read' => [
            Kind::Date,
            '14/01/2027',
            '2027-01-14',
            $dayFirst,
            $dayFirst,
            'changed unreadable',
        ];
        yield 'a decimal comma' => [Kind::Number, '1.234,5', '1234.50', $comma, $plain, 'forgiven number-form'];
        yield 'equal bytes that are two numbers' => [Kind::Number, '1,234', '1,234', $comma, $grouped, 'changed scale'];
        yield 'two tokens' => [Kind::Text, 'NULL', 'N/A', $tokens, $tokens, 'changed blank-token'];
        yield 'a token and the empty cell' => [Kind::Text, 'NULL', '', $tokens, $tokens, 'changed blank-token'];
        yield 'a token of one side is a value of the other' => [Kind::Text, 'NULL', 'NULL', $tokens, $plain, 'filled filled'];
        yield 'a token against a value' => [Kind::Text, 'Heron', 'N/A', $tokens, $tokens, 'blanked blanked'];
        yield 'a time on the wall of a zone is an instant' => [
            Kind::DateTime,
            '2027-07-01 13:00',
            '2027-07-01T12:00:00Z',
            $london,
            $plain,
            'forgiven date-form',
        ];
        yield 'and another one in winter' => [Kind::DateTime, '2027-01-01 13:00', '2027-01-01T12:00:00Z', $london, $plain, 'changed none'];
        yield 'a group mark that is not declared is not read' => [Kind::Number, '1,234', '1234', $plain, $plain, 'changed unreadable'];
        yield 'a swapped day passes by no guess' => [Kind::Date, '03/04/2024', '2024-04-03', $plain, $plain, 'changed unreadable'];
        yield 'an instant against a time on the wall' => [
            Kind::DateTime,
            '2027-07-01 13:00',
            '2027-07-01 12:00',
            $london,
            $plain,
            'changed unreadable',
        ];
        yield 'a time that the clock goes forward over' => [
            Kind::DateTime,
            '2027-03-28 01:30',
            '2027-03-28T00:30:00Z',
            $london,
            $plain,
            'changed unreadable',
        ];
        yield 'the first of two times' => [
            Kind::DateTime,
            '2027-10-31 01:30',
            '2027-10-31T00:30:00Z',
            $london,
            $plain,
            'forgiven date-form',
        ];
        yield 'the second of two times' => [
            Kind::DateTime,
            '2027-10-31 01:30',
            '2027-10-31T01:30:00Z',
            $london,
            $plain,
            'forgiven date-form',
        ];
        yield 'neither of two times' => [Kind::DateTime, '2027-10-31 01:30', '2027-10-31T02:30:00Z', $london, $plain, 'changed none'];
        yield 'not read on either side' => [Kind::Number, 'N/A', 'n/a', $plain, $plain, 'changed case'];
    }

    #[DataProvider('allowances')]
    public function test_a_difference_of_value_passes_by_a_declared_rule_alone(
        Kind $kind,
        ?Tolerance $tolerance,
        ?DeclaredRounding $rounding,
        string $source,
        string $target,
        string $expected,
    ): void {
        $pair = new ColumnPair('pair-000000000000', 'a', 'b', $kind, [], $tolerance, $rounding, ['A' => 'Active']);
        $judgement = (new ColumnComparison($pair, new Reading($kind), new Reading($kind), new CauseCatalogue))->classify($source, $target);

        self::assertSame($expected, $judgement->class->value.' '.($judgement->cause->id ?? 'waits'));
    }

    /** @return iterable<string, array{Kind, Tolerance|null, DeclaredRounding|null, string, string, string}> */
    public static function allowances(): iterable
    {
        $of = static fn(string $by, string $most): Tolerance => new Tolerance($by, BigDecimal::of($most));
        yield 'just inside' => [Kind::Number, $of('absolute', '0.01'), null, '10.00', '10.01', 'forgiven tolerance'];
        yield 'just outside' => [Kind::Number, $of('absolute', '0.01'), null, '10.01', '10.03', 'changed waits'];
        yield 'a share of the larger magnitude' => [Kind::Number, $of('relative', '0.5'), null, '-50', '-100', 'forgiven tolerance'];
        yield 'more than the share' => [Kind::Number, $of('relative', '0.5'), null, '49', '100', 'changed waits'];
        yield 'days' => [Kind::Date, $of('days', '2'), null, '2027-02-27', '2027-03-01', 'forgiven tolerance'];
        yield 'one day more' => [Kind::Date, $of('days', '2'), null, '2027-02-27', '2027-03-02', 'changed waits'];
        yield 'seconds' => [Kind::DateTime, $of('seconds', '90'), null, '2027-01-01T00:00:00', '2026-12-31T23:58:30', 'forgiven tolerance'];
        yield 'a declared rounding' => [Kind::Number, null, new DeclaredRounding(0, 'half-even'), '2.5', '2', 'forgiven rounding'];
        yield 'another rounding than the declared one' => [
            Kind::Number,
            null,
            new DeclaredRounding(0, 'half-even'),
            '2.5',
            '3',
            'changed rounding',
        ];
        yield 'as the crosswalk says' => [Kind::Text, null, null, 'A', 'Active', 'forgiven crosswalk'];
        yield 'nearly as the crosswalk says' => [Kind::Text, null, null, 'A', 'ACTIVE', 'changed case'];
        yield 'against the crosswalk' => [Kind::Text, null, null, 'A', 'Suspended', 'changed waits'];
        yield 'still the value of the source' => [Kind::Text, null, null, 'A', 'A', 'changed untranslated'];
        yield 'no entry' => [Kind::Text, null, null, 'S', 'Suspended', 'changed waits'];
    }

    /** @param array<string, string> $crosswalk */
    #[DataProvider('crosswalks')]
    public function test_where_the_crosswalk_has_an_entry_the_entry_is_what_must_stand_there(
        array $crosswalk,
        string $source,
        string $target,
        string $expected,
    ): void {
        $tokens = new Reading(blankTokens: ['NULL']);
        $column = new ColumnComparison(
            new ColumnPair('pair-000000000000', 'a', 'b', Kind::Text, ['spacing'], crosswalk: $crosswalk),
            $tokens,
            $tokens,
            new CauseCatalogue,
        );
        $judgement = $column->classify($source, $target);
        $cause =
            $judgement->cause ??
            ($judgement->class === CellClass::Identical ? null : $column->resolve($source, $target, '', new ColumnDecision([])));

        self::assertSame(
            $expected,
            trim("{$judgement->class->value} ".($cause->id ?? '').(isset($cause->facts['against']) ? ' against the entry' : '')),
        );
    }

    /** @return iterable<string, array{array<string, string>, string, string, string}> */
    public static function crosswalks(): iterable
    {
        $entries = ['A' => 'Active', '' => 'Unknown', 'N' => '', 'S' => 'S'];
        yield 'as it says' => [$entries, 'A', 'Active', 'forgiven crosswalk'];
        yield 'as it says, but for a form that the pair forgives' => [$entries, 'A', ' Active', 'forgiven crosswalk'];
        yield 'the entry is found under a form that the pair forgives' => [$entries, ' A ', 'Active', 'forgiven crosswalk'];
        yield 'but not under any other' => [$entries, 'a', 'Active', 'changed none'];
        yield 'not translated' => [$entries, 'A', 'A', 'changed untranslated'];
        yield 'not translated, in a form that the pair forgives' => [$entries, 'A', ' A', 'changed untranslated'];
        yield 'in another form than the entry' => [$entries, 'A', 'ACTIVE', 'changed case against the entry'];
        yield 'another value than the entry' => [$entries, 'A', 'Lapsed', 'changed none against the entry'];
        yield 'nearly the entry' => [$entries, 'A', 'Actibe', 'changed near-text against the entry'];
        yield 'blank has an entry, by any token' => [$entries, 'NULL', 'Unknown', 'forgiven crosswalk'];
        yield 'blank was not translated' => [$entries, '', '', 'changed untranslated'];
        yield 'a value becomes blank' => [$entries, 'N', 'NULL', 'forgiven crosswalk'];
        yield 'a value that should have become blank' => [$entries, 'N', 'None', 'filled filled against the entry'];
        yield 'lost' => [$entries, 'A', '', 'blanked blanked against the entry'];
        yield 'an entry that changes nothing' => [$entries, 'S', 'S', 'forgiven crosswalk'];
        yield 'without an entry values are compared as they stand' => [$entries, 'X', 'X', 'identical'];
    }
}
