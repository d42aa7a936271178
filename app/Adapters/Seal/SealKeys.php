<?php

declare(strict_types=1);

namespace App\Adapters\Seal;

use App\Models\KeyRotation;
use App\Problems\NoRoom;
use NineTally\Core\Seal\SealKey;

/**
 * The key that this installation seals with: made when it is first needed, and kept where nobody but the account that serves can read it.
 * The next one lies beside it until the act that names it is committed.
 */
final readonly class SealKeys
{
    private const FILE = 'seal.key';

    private const NEXT = 'next-seal.key';

    public function __construct(private string $folder) {}

    public function key(): SealKey
    {
        $path = "{$this->folder}/".self::FILE;
        if (! is_file($path)) {
            $aside = $this->made();
            // Of two who make one in the same moment the first stays: a link is made once.
            @link($aside, $path);
            unlink($aside);
        }
        $this->takeNext();

        return SealKey::fromPrivatePem((string) file_get_contents($path));
    }

    /** @return SealKey that follows once its fingerprint is entered as the one that does */
    public function prepareNext(): SealKey
    {
        $path = "{$this->folder}/".self::NEXT;
        rename($this->made(), $path);

        return SealKey::fromPrivatePem((string) file_get_contents($path));
    }

    /** Whoever changed the key may have died before it lay in its place; of the old one nothing is left. */
    public function takeNext(): void
    {
        $next = @file_get_contents("{$this->folder}/".self::NEXT);
        if ($next !== false && KeyRotation::query()->where('to_fingerprint', SealKey::fromPrivatePem($next)->fingerprint())->exists()) {
            @rename("{$this->folder}/".self::NEXT, "{$this->folder}/".self::FILE);
        }
    }

    /** @return string where a new key lies */
    private function made(): string
    {
        is_dir($this->folder) || @mkdir($this->folder, 0700, true);
        $path = "{$this->folder}/".self::FILE.'.'.bin2hex(random_bytes(6));
        $pem = SealKey::ofSeed(random_bytes(32))->privatePem();
        @touch($path);
        @chmod($path, 0600);
        if (@file_put_contents($path, $pem) !== strlen($pem)) {
            throw NoRoom::writing();
        }

        return $path;
    }
}
