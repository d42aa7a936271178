<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Likeness\Measures\Beginning;
use NineTally\Core\Likeness\Measures\DamerauLevenshtein;
use NineTally\Core\Likeness\Measures\DateDistance;
use NineTally\Core\Likeness\Measures\JaroWinkler;
use NineTally\Core\Likeness\Measures\NumberDistance;
use NineTally\Core\Likeness\Measures\WordSets;
use NineTally\Core\Value\Kind;

/** Which likeness fits the values of a column. */
enum LikenessKind: string
{
    case Code = 'code';
    case Name = 'name';
    case Words = 'words';
    case Number = 'number';
    case Date = 'date';
    case Beginning = 'beginning';

    public function measure(FoldedText $folded): Measure
    {
        return match ($this) {
            self::Code => new DamerauLevenshtein($folded),
            self::Name => new JaroWinkler($folded),
            self::Words => new WordSets($folded),
            self::Number => new NumberDistance,
            self::Date => new DateDistance,
            self::Beginning => new Beginning($folded),
        };
    }

    /** As what its values are read. */
    public function kind(): Kind
    {
        return match ($this) {
            self::Number => Kind::Number,
            self::Date => Kind::Date,
            default => Kind::Text,
        };
    }
}
