<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Value\Reading;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class KeyFormTest extends TestCase
{
    /**
     * @param  list<string>  $forgives
     */
    #[DataProvider('keys')]
    public function test_keys_meet_when_they_differ_by_what_is_forgiven_alone(array $forgives, string $one, string $other, bool $meet): void
    {
        $form = new KeyForm([new Reading], [$forgives], (new CauseCatalogue)->forms);

        self::assertSame($meet, $form->canonical([$one]) === $form->canonical([$other]));
    }

    /** @return iterable<string, array{list<string>, string, string, bool}> */
    public static function keys(): iterable
    {
        yield 'nothing is forgiven' => [[], 'KB', 'kb', false];
        yield 'capitals' => [['case'], 'KB', 'kb', true];
        yield 'capitals alone' => [['case'], 'KB', ' kb', false];
        yield 'capitals and spaces' => [['case', 'spacing'], 'KB 1', ' kb  1', true];
        yield 'what is invisible parts a run of spaces' => [['spacing', 'invisible'], "KB \u{200B} 1", 'KB 1', true];
        yield 'leading zeros' => [['leading-zeros'], '007', '7', true];
        yield 'numbers' => [['number-form'], '+1234.50', '1234.5', true];
        yield 'a number is no text that looks like its writing' => [['number-form'], '1234.5', '12345e-1x', false];
        yield 'dates' => [['date-form'], '2027-01-14', '2027-01-14 00:00', true];
        yield 'two days' => [['date-form'], '2027-01-14', '15/01/2027', false];
        yield 'yes and no' => [['yes-no-form'], 'Y', 'true', true];
        yield 'yes is not no' => [['yes-no-form'], 'Y', 'false', false];
    }

    public function test_keys_of_several_columns_never_run_into_each_other(): void
    {
        $form = new KeyForm([new Reading, new Reading], [['case'], []], (new CauseCatalogue)->forms);

        self::assertNotSame($form->canonical(['1', '23']), $form->canonical(['12', '3']));
        self::assertNotSame($form->canonical(['KB', 'a']), $form->canonical(['KB', 'A']));
        self::assertSame($form->canonical(['KB', 'a']), $form->canonical(['kb', 'a']));
    }

    public function test_every_blank_token_equals_the_empty_cell(): void
    {
        $form = new KeyForm([new Reading(blankTokens: ['NULL', 'N/A'])], [[]], (new CauseCatalogue)->forms);

        self::assertSame(
            ['', '', '', 'null'],
            array_map(static fn(string $cell): string => $form->canonical([$cell]), ['', 'NULL', 'N/A', 'null']),
        );
        self::assertFalse($form->isPlain);
        self::assertTrue((new KeyForm([new Reading], [[]], (new CauseCatalogue)->forms))->isPlain);
    }

    public function test_a_memo_that_is_full_changes_nothing(): void
    {
        $form = new KeyForm([new Reading], [['leading-zeros']], (new CauseCatalogue)->forms);
        for ($number = 0; $number < 25_000; $number++) {
            self::assertSame((string) $number, $form->canonical([sprintf('%06d', $number)]));
        }
    }
}
