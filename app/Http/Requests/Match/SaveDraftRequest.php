<?php

declare(strict_types=1);

namespace App\Http\Requests\Match;

use Illuminate\Foundation\Http\FormRequest;

/** The draft is held against the published schema of plans, which says more than rules of a form could. */
final class SaveDraftRequest extends FormRequest
{
    private const PARTS = ['key', 'columnPairs', 'leftOut', 'sides', 'bridges', 'refusedBridges', 'keptRows', 'equivalents', 'demands',
        'defaults', 'sensitive', 'references', 'totals', 'records'];

    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'key' => ['present', 'array', 'max:20'],
            'columnPairs' => ['present', 'array', 'max:5000'],
            'leftOut' => ['required', 'array'],
            'sides' => ['array'],
            'references' => ['array', 'max:1000'],
            'bridges' => ['array', 'max:100000'],
            'refusedBridges' => ['array', 'max:100000'],
            'keptRows' => ['array', 'max:10000'],
            'equivalents' => ['array', 'max:1000'],
            'demands' => ['array', 'max:16384'],
            'defaults' => ['array'],
            'totals' => ['array', 'max:50'],
            'records' => ['array', 'max:50'],
            'sensitive' => ['array:source,target'],
            'sensitive.*' => ['array', 'max:16384'],
        ];
    }

    /** @return array<string, mixed> */
    public static function parts(mixed $document): array
    {
        return is_array($document) ? array_intersect_key($document, array_flip(self::PARTS)) : [];
    }

    /** @return int|null the number of the draft that was seen (RFC 9110, If-Match); null if whoever sends it overwrites what is there */
    public function seen(): ?int
    {
        return preg_match('/^"(\d{1,9})"$/', (string) $this->header('If-Match'), $number) === 1 ? (int) $number[1] : null;
    }

    /** @return array<string, mixed> byte for byte as it was sent: a blank token may be a space, and spaces are not trimmed here */
    public function document(): array
    {
        $sent = json_decode($this->getContent(), true, 64);

        return self::parts($sent);
    }
}
