<?php

declare(strict_types=1);

namespace NineTally\Tests\Row;

use NineTally\Core\Row\KeyTuple;
use PHPUnit\Framework\TestCase;

final class KeyTupleTest extends TestCase
{
    public function test_keys_are_tuples_and_never_joined_strings(): void
    {
        self::assertNotSame(KeyTuple::of(['1', '23'])->bytes(), KeyTuple::of(['12', '3'])->bytes());
        self::assertNotSame(KeyTuple::of(['a', ''])->bytes(), KeyTuple::of(['', 'a'])->bytes());
        self::assertNotSame(KeyTuple::of(['a,b'])->asCsv(), KeyTuple::of(['a', 'b'])->asCsv());
        self::assertSame($awkward = ['a,"b', ' x ', '', "two\nlines", '7'], KeyTuple::fromCsv(KeyTuple::of($awkward)->asCsv())->cells);
        self::assertSame(['KB', 'ø', ''], KeyTuple::fromBytes(KeyTuple::of(['KB', 'ø', ''])->bytes())->cells);
    }

    public function test_a_partly_blank_key_is_a_key(): void
    {
        self::assertTrue(KeyTuple::of(['', ''])->isBlank());
        self::assertFalse(KeyTuple::of(['KB', ''])->isBlank());
    }

    public function test_is_written_as_a_csv_record(): void
    {
        self::assertSame('KB,"0,14"," x","the ""Heron"""', KeyTuple::of(['KB', '0,14', ' x', 'the "Heron"'])->asCsv());
    }
}
