<?php

declare(strict_types=1);

namespace App\Http\Requests\Sources;

use App\Adapters\Sources\SourceAddress;
use App\Adapters\Sources\SourceKind;
use App\Models\Migration;
use App\Models\SourceConnection;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/**
 * What an administrator says of a connection.
 *
 * @phpstan-import-type Settings from SourceAddress
 */
final class ConnectionRequest extends FormRequest
{
    private const MOST_SECONDS = 24 * 3_600;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $migration = $this->route('migration');
        $kept = $this->kept();
        $kind = SourceKind::tryFrom($this->string('kind')->toString());
        $needed = static fn(SourceKind ...$kinds): string => in_array($kind, $kinds, true) ? 'required' : 'nullable';
        $ofServers = [SourceKind::Postgresql, SourceKind::Mysql, SourceKind::SqlServer, SourceKind::Odbc];

        return [
            'label' => [
                'required', 'string', 'max:100',
                Rule::unique('connections', 'label')
                    ->where('migration_id', $migration instanceof Migration ? $migration->id : 0)
                    ->ignore($kept?->id),
            ],
            'kind' => ['required', Rule::enum(SourceKind::class)],
            'host' => [$needed(SourceKind::Sftp, ...$ofServers), 'string', 'max:255', 'regex:/^[\w.:\-\[\]]+$/'],
            'port' => ['nullable', 'integer', 'between:1,65535'],
            'database' => [$needed(...$ofServers), 'string', 'max:200', 'not_regex:/[;=\s\x00]/'],
            'user' => [$needed(SourceKind::Sftp, SourceKind::ObjectStore, ...$ofServers), 'string', 'max:200'],
            'password' => ['nullable', 'string', 'max:20000'],
            'file' => [$needed(SourceKind::Sqlite), 'string', 'max:500'],
            'url' => [$needed(SourceKind::Feed), 'string', 'url:http,https', 'max:2000'],
            'header' => ['nullable', 'string', 'max:100', 'regex:/^[A-Za-z0-9-]+$/'],
            'prefix' => ['nullable', 'string', 'max:100', 'regex:/^[\x20-\x7E]*$/'],
            'paging' => ['nullable', Rule::in(['none', 'link', 'next', 'page', 'offset', 'cursor'])],
            'parameter' => ['nullable', 'string', 'max:100'],
            'field' => ['nullable', 'string', 'max:200'],
            'records' => ['nullable', 'string', 'max:200'],
            'folder' => ['nullable', 'string', 'max:500'],
            'marker' => ['nullable', 'string', 'max:50', 'not_regex:#/#'],
            'rest' => ['nullable', 'integer', 'between:0,86400'],
            'driver' => [$needed(SourceKind::Odbc), 'string', 'max:100', 'regex:/^[A-Za-z0-9 ._+()-]+$/'],
            'hostKey' => ['nullable', 'string', 'regex:#^SHA256:[A-Za-z0-9+/]{43}$#'],
            'bucket' => [$needed(SourceKind::ObjectStore), 'string', 'max:200', 'not_regex:#[/\s]#'],
            'region' => [$needed(SourceKind::ObjectStore), 'string', 'max:60', 'regex:/^[a-z0-9-]+$/'],
            'size' => ['nullable', 'integer', 'between:1,1000000'],
            'first' => ['nullable', 'integer', 'between:0,1'],
            'encryption' => ['nullable', Rule::in(['preferred', 'required', 'verified'])],
            'authority' => [
                'nullable',
                'required_if:encryption,verified',
                'string',
                'max:100000',
                'starts_with:-----BEGIN CERTIFICATE-----',
            ],
            'seconds' => ['nullable', 'integer', 'between:1,'.self::MOST_SECONDS],
            'rows' => ['nullable', 'integer', 'min:1'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'label.unique' => 'Another connection of this migration has this name. Choose another one.',
            'host.regex' => 'The name of the computer has a character that no name has.',
            'database.not_regex' => 'The name of the database has a character that none has here: a space, ; or =.',
            'driver.regex' => 'A driver is named as this machine knows it, without braces, signs or a path.',
            'hostKey.regex' => 'This is no fingerprint of a key: it begins with SHA256: and has 43 signs behind it.',
            'authority.required_if' => 'Give the certificate of the authority that the certificate of the database is held against.',
            'authority.starts_with' => 'This is no certificate in PEM: it begins with -----BEGIN CERTIFICATE-----.',
        ];
    }

    public function kept(): ?SourceConnection
    {
        $kept = $this->route('connection');

        return $kept instanceof SourceConnection ? $kept : null;
    }

    public function label(): string
    {
        return $this->string('label')->toString();
    }

    public function kind(): SourceKind
    {
        return SourceKind::from($this->string('kind')->toString());
    }

    /** @return string|null as it was typed; null for the one that is kept */
    public function password(): ?string
    {
        // A password may begin or end with a space.
        $sent = json_decode($this->getContent(), true);
        $password = is_array($sent) ? $sent['password'] ?? null : null;

        return is_string($password) && $password !== '' ? $password : null;
    }

    /** @return Settings */
    public function settings(): array
    {
        /** @var Settings $settings */
        $settings = array_filter(
            $this->safe(array_diff(array_keys($this->rules()), ['label', 'kind', 'password'])),
            static fn(mixed $value): bool => $value !== null && $value !== '',
        );

        // A token may be shown without a word before it.
        return $this->has('prefix') ? ['prefix' => (string) $this->string('prefix')] + $settings : $settings;
    }
}
