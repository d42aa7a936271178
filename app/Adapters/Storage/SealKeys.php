<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use NineTally\Core\Seal\SealKey;

/**
 * The key that this installation seals with: made when it is first needed, and kept where nobody but the account that serves can read it.
 */
final readonly class SealKeys
{
    private const FILE = 'seal.key';

    public function __construct(private string $folder) {}

    public function key(): SealKey
    {
        $path = "{$this->folder}/".self::FILE;
        if (! is_file($path)) {
            @mkdir($this->folder, 0700, true);
            $aside = "{$path}.".bin2hex(random_bytes(6));
            $pem = SealKey::ofSeed(random_bytes(32))->privatePem();
            touch($aside);
            chmod($aside, 0600);
            if (file_put_contents($aside, $pem) !== strlen($pem)) {
                throw new \RuntimeException('The key that seals could not be written: the disk has no room for it.');
            }
            // Of two who make one in the same moment the first stays: a link is made once.
            @link($aside, $path);
            unlink($aside);
        }

        return SealKey::fromPrivatePem((string) file_get_contents($path));
    }
}
