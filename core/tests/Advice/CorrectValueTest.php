<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\CorrectValue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Value\DateForm;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\NumberStyle;
use NineTally\Core\Value\Reading;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CorrectValueTest extends TestCase
{
    #[DataProvider('values')]
    public function test_says_what_must_stand_in_the_target(Kind $kind, Reading $target, string $source, ?string $must): void
    {
        $form = ['number' => 'number-form', 'date' => 'date-form', 'yes-no' => 'yes-no-form'][$kind->value] ?? null;
        $pair = new ColumnPair('a', 'fee', 'fee', $kind, $form === null ? [] : [CauseId::from($form)->value]);

        self::assertSame(
            $must,
            (new CorrectValue($pair, new Reading($kind), $target))->of($source),
        );
    }

    /** @return iterable<string, array{Kind, Reading, string, string|null}> */
    public static function values(): iterable
    {
        $comma = new Reading(Kind::Number, numbers: new NumberStyle(',', '.'));
        yield 'text as it is' => [Kind::Text, new Reading, ' Jörg ', ' Jörg '];
        yield 'a number in the marks of the target' => [Kind::Number, $comma, '-1234567.50', '-1.234.567,5'];
        yield 'a small number' => [Kind::Number, $comma, '0.05', '0,05'];
        yield 'a date in the form of the target' => [
            Kind::Date,
            new Reading(Kind::Date, dateForms: [DateForm::of('dd/MM/yyyy')]),
            '2027-03-05',
            '05/03/2027',
        ];
        yield 'a date where no form is declared' => [Kind::Date, new Reading(Kind::Date), '2027-03-05', '2027-03-05'];
        yield 'a blank' => [Kind::Number, $comma, '', ''];
        yield 'what cannot be read as its kind' => [Kind::Number, $comma, 'about ten', null];
    }

    public function test_the_crosswalk_comes_first_and_what_it_lacks_stays(): void
    {
        $reading = new Reading;
        $value = new CorrectValue(
            new ColumnPair('a', 'status', 'status', Kind::Text, [], crosswalk: ['A' => 'Active', 'X' => '']),
            $reading,
            $reading,
        );

        self::assertSame(['Active', '', 'V'], [$value->of('A'), $value->of('X'), $value->of('V')]);
    }
}
