<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

final readonly class RowLimit
{
    public static function sentence(int $rows): string
    {
        return sprintf(
            'it gives more than %s rows, which is as many as this connection allows. Ask for fewer, or have the limit raised',
            number_format($rows),
        );
    }
}
