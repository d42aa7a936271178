<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\CellByCell;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Reading;

/**
 * Reads cells as numbers, dates or yes and no in declared forms, and writes them in one form. Unreadable cells stay as they are, counted
 * and listed.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final class ReadValues extends CellByCell
{
    public const UNREADABLE = 'unreadable';

    private const MEMO = 4_096;

    /**
     * @param  list<string>  $chosen
     * @param  Declared  $declared  by the step; what it does not say, side and column do
     * @param  string  $forms  how they are declared, in words
     */
    public function __construct(
        array $chosen,
        private readonly Kind $kind,
        private readonly array $declared,
        private readonly string $forms,
    ) {
        parent::__construct($chosen);
    }

    public function sentence(): string
    {
        $kind = match ($this->kind) {
            Kind::Number => 'a number',
            Kind::Date => 'a date',
            Kind::DateTime => 'a date and time',
            default => 'yes or no',
        };

        return 'Read '.Words::listed($this->chosen)." as {$kind}".($this->forms === '' ? '' : ", {$this->forms}");
    }

    protected function alteration(string $column, StepContext $context): \Closure
    {
        $reading = DeclaredReading::of([...($context->forms?->declared($column) ?? []), ...$this->declared], $this->kind);
        $memo = [];
        $figures = $context->figures;

        return static function (string $cell) use (&$memo, $figures, $reading): string {
            if ($reading->isBlank($cell)) {
                return $cell;
            }
            $written = $memo[$cell] ?? null;
            if ($written === null) {
                $written = self::written($reading, $cell) ?? false;
                if (count($memo) === self::MEMO) {
                    $memo = [];
                }
                if (strlen($cell) < 100) {
                    $memo[$cell] = $written;
                }
            }
            if ($written === false) {
                $figures->note(self::UNREADABLE, $cell);

                return $cell;
            }

            return $written;
        };
    }

    private static function written(Reading $reading, string $cell): ?string
    {
        $yes = $reading->kind === Kind::YesNo ? $reading->yesOrNo($cell) : null;

        return match ($reading->kind) {
            Kind::Number => ($number = $reading->number($cell)?->toBigDecimal()) === null
                ? null
                : (string) $number->toScale(max(0, $number->getScale())),
            Kind::YesNo => $yes === null ? null : ($yes ? 'yes' : 'no'),
            default => ($moment = $reading->moment($cell)) === null ? null : self::moment($moment),
        };
    }

    /** ISO 8601: the day alone where no time is written. */
    private static function moment(Moment $moment): string
    {
        $day = gmdate('Y-m-d', $moment->days * Moment::SECONDS_OF_DAY);
        if ($moment->seconds === null) {
            return $day;
        }
        $offset =
            $moment->offset === null
                ? ''
                : ($moment->offset === 0
                    ? 'Z'
                    : sprintf(
                        '%s%02d:%02d',
                        $moment->offset < 0 ? '-' : '+',
                        intdiv(abs($moment->offset), 3600),
                        intdiv(abs($moment->offset) % 3600, 60),
                    ));

        return $day.gmdate('\\TH:i:s', $moment->seconds).($moment->fraction === '' ? '' : ".{$moment->fraction}").$offset;
    }
}
