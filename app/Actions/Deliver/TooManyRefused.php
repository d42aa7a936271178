<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use NineTally\Core\NineTallyException;

final class TooManyRefused extends \RuntimeException implements NineTallyException
{
    public static function in(string $fileName, int $refused, string $sentence): self
    {
        return new self(
            sprintf(
                'More than %s records of "%s" are refused (the last one: %s). It was most likely read the wrong way: check the delimiter '.
                    'and deliver it again.',
                number_format($refused - 1),
                $fileName,
                $sentence,
            ),
        );
    }

    public function code(): string
    {
        return 'too-many-refused';
    }
}
