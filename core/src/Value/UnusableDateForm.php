<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

use NineTally\Core\NineTallyException;

final class UnusableDateForm extends \DomainException implements NineTallyException
{
    public static function withLetters(string $pattern, string $letters): self
    {
        return new self(
            sprintf(
                'The date form "%s" cannot be used: "%s" means nothing there. Its fields are yyyy yy MM M MMM dd d HH H hh h a mm ss SSS '.
                    'XXX; put other letters between apostrophes.',
                $pattern,
                $letters,
            ),
        );
    }

    public static function withoutDay(string $pattern): self
    {
        return new self(
            sprintf('The date form "%s" names no whole day. It needs a year, a month and a day, such as dd/MM/yyyy.', $pattern),
        );
    }

    public static function withoutCentury(string $pattern): self
    {
        return new self(
            sprintf(
                'The date form "%s" has years of two digits, and nothing says which century they mean. Say the first year that two digits '.
                    'can mean, such as 1950: then 50 is 1950 and 49 is 2049.',
                $pattern,
            ),
        );
    }

    public function code(): string
    {
        return 'unusable-date-form';
    }
}
